import { useComputedColorScheme } from '@mantine/core';

/** Colours that were read, by the theme in which they were. */
const readColours = new Map<string, string>();

/** Reads theme colours for canvases, which know no CSS variables; new ones after the theme has changed. */
export function useCanvasColour(): (value: string) => string {
  const scheme = useComputedColorScheme('light');
  return (value) => {
    const name = /^var\((--[\w-]+)\)$/.exec(value)?.[1];
    if (!name || !scheme) return value;
    // The theme that the document is in, which decides; each reading would have all styles worked out anew.
    const kept = `${document.documentElement.dataset.mantineColorScheme} ${name}`;
    const colour = readColours.get(kept) ?? getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    if (colour) readColours.set(kept, colour);
    return colour;
  };
}
