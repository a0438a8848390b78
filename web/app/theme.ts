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

/**
 * Mantine wants ten shades of its main colour. Suvok's controls have no colour of their own: all ten are ink and paper.
 */
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

/** The greys of the bay theme, lightest first: Mantine takes its dark theme's colours from here. */
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
  // Ink is dark in the paper theme and light in the bay theme, so the text on it changes too.
  variantColorResolver: (input) =>
    input.variant === 'filled'
      ? { background: 'var(--ink)', hover: 'var(--soft)', color: 'var(--ground)', border: '1px solid transparent' }
      : defaultVariantColorsResolver(input),
  components: {
    // Everything that opens over the page goes into a landmark of its own (index.html), and its closing button has a
    // name.
    ...(typeof document !== 'undefined' &&
      document.getElementById('popups') && { Portal: Portal.extend({ defaultProps: { target: '#popups' } }) }),
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    Notification: Notification.extend({ defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } }),
    // The first item takes the focus. Mantine's empty placeholder would be a child of the menu that is no menu item.
    Menu: Menu.extend({ defaultProps: { withInitialFocusPlaceholder: false } }),
    // A tick stands on ink: it takes the colour of the page's ground.
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
