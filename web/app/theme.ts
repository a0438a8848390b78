import { createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core';

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

export const theme = createTheme({
  fontFamily: "'Archivo Variable', sans-serif",
  headings: { fontFamily: "'Archivo Variable', sans-serif" },
  colors: { ink },
  primaryColor: 'ink',
  primaryShade: { light: 7, dark: 1 },
  autoContrast: true,
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
};

export const resolver: CSSVariablesResolver = () => ({ variables: {}, light: shared, dark: shared });
