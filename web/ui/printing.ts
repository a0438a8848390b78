import { useMantineColorScheme } from '@mantine/core';
import { useEffect, useRef } from 'react';

/** The attribute of the document by which style sheets know that a screen is being printed. */
const attribute = 'printing';
/** Lanes are drawn anew for the paper's width, which takes a moment. */
const redrawnMs = 250;

/** Prints the screen in the paper theme, laid out for a page; the theme comes back afterwards. */
export function usePrint(): () => void {
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const latest = useRef(colorScheme);
  useEffect(() => {
    latest.current = colorScheme;
  });
  return () => {
    const { dataset } = document.documentElement;
    if (dataset[attribute] !== undefined) return;
    const before = latest.current;
    dataset[attribute] = '';
    setColorScheme('light');
    setTimeout(() => {
      window.addEventListener(
        'afterprint',
        () => {
          delete dataset[attribute];
          setColorScheme(before);
        },
        { once: true },
      );
      window.print();
    }, redrawnMs);
  };
}
