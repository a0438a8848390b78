/** The theme's colours on white paper, by the names that scenes use: the light theme of web/app/theme.css. */
export const paperColours: Readonly<Record<string, string>> = {
  '--ground': '#ffffff',
  '--rule': '#dcd7cc',
  '--rule-soft': '#e8e4db',
  '--ink': '#1b2126',
  '--soft': '#565e66',
  '--faint': '#666d74',
  '--gain': '#0b7a75',
  '--loss': '#8f5a08',
  '--stop': '#b93a1e',
  '--band': '#f0ede5',
  '--setup-0': '#7a5230',
  '--setup-1': '#2f6db5',
  '--setup-2': '#8a3fa8',
  '--setup-3': '#c2407a',
  '--setup-4': '#4f7f1f',
  '--setup-5': '#4a46c8',
  '--setup-6': '#0d7fa8',
  '--setup-7': '#7c2748',
};

/** A scene's colour on paper; one that is no variable of the theme stays as it is. */
export function onPaper(css: string): string {
  const name = /^var\((--[\w-]+)\)$/.exec(css)?.[1];
  return (name && paperColours[name]) ?? css;
}
