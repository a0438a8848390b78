import { useComputedColorScheme } from '@mantine/core';

/** Reads theme colours for canvases, which know no CSS variables; new ones after the theme has changed. */
export function useCanvasColour(): (value: string) => string {
  const scheme = useComputedColorScheme('light');
  return (value) => {
    const name = /^var\((--[\w-]+)\)$/.exec(value)?.[1];
    if (!name || !scheme) return value;
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  };
}
