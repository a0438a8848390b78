import {
  Checkbox,
  createTheme,
  defaultVariantColorsResolver,
  type CSSVariablesResolver,
  type MantineColorsTuple,
  Menu,
  Modal,
  Notification,
  Portal,
  Radio,
} from '@mantine/core';

/** One ink, ten times: Suvok's controls have no colour of their own. */
const ink: MantineColorsTuple = [
  '#f4f2ed',
  '#e8e4db',
  '#dcd7cc',
  '#a6b6c1',
  '#6d747b',
  '#5b636b',
  '#39424a',
  '#1b2126',
  '#172a37',
  '#10202b',
];

/** The bay theme's greys, lightest first, where Mantine looks for its dark ones. */
const bay: MantineColorsTuple = [
  '#edf1f3',
  '#a6b6c1',
  '#8ea0ac',
  '#5f7686',
  '#2b4254',
  '#1e3342',
  '#172a37',
  '#10202b',
  '#0d1a24',
  '#0a141c',
];

/** Warm greys for what Mantine takes its neutral colours from in the paper theme. */
const warm: MantineColorsTuple = [
  '#fbfaf7',
  '#e8e4db',
  '#e0dbd0',
  '#dcd7cc',
  '#cfc9bc',
  '#a9a59b',
  '#666d74',
  '#565e66',
  '#39424a',
  '#1b2126',
];

export const theme = createTheme({
  fontFamily: "'Archivo Variable', sans-serif",
  headings: { fontFamily: "'Archivo Variable', sans-serif" },
  colors: { ink, dark: bay, gray: warm },
  primaryColor: 'ink',
  primaryShade: { light: 7, dark: 1 },
  // Ink turns over with the theme, so what stands on it must turn over too.
  variantColorResolver: (input) =>
    input.variant === 'filled'
      ? { background: 'var(--ink)', hover: 'var(--soft)', color: 'var(--ground)', border: '1px solid transparent' }
      : defaultVariantColorsResolver(input),
  components: {
    // Whatever opens over the page is within a landmark of its own (index.html), and can be closed by a button with a name.
    ...(typeof document !== 'undefined' &&
      document.getElementById('popups') && { Portal: Portal.extend({ defaultProps: { target: '#popups' } }) }),
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Notification: Notification.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    // The first item takes the focus: an empty child of a menu is none of its items.
    Menu: Menu.extend({ defaultProps: { withInitialFocusPlaceholder: false } }),
    // A tick stands on ink as well, and turns over with it.
    Checkbox: Checkbox.extend({ defaultProps: { iconColor: 'var(--ground)' } }),
    Radio: Radio.extend({ defaultProps: { iconColor: 'var(--ground)' } }),
  },
  defaultRadius: 8,
  cursorType: 'pointer',
  fontSizes: { xs: '11.5px', sm: '13px', md: '14px', lg: '16px', xl: '20px' },
});

const shared = {
  '--mantine-color-body': 'var(--ground)',
  '--mantine-color-text': 'var(--ink)',
  '--mantine-color-dimmed': 'var(--soft)',
  '--mantine-color-default': 'var(--raised)',
  '--mantine-color-default-hover': 'var(--rule-soft)',
  '--mantine-color-default-color': 'var(--ink)',
  '--mantine-color-default-border': 'var(--rule)',
  '--mantine-color-placeholder': 'var(--faint)',
  '--mantine-color-error': 'var(--stop)',
  '--mantine-primary-color-filled': 'var(--ink)',
  '--mantine-primary-color-filled-hover': 'var(--soft)',
};

export const resolver: CSSVariablesResolver = () => ({ variables: {}, light: shared, dark: shared });
