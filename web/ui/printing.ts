import { useMantineColorScheme } from '@mantine/core';
import { useEffect, useRef } from 'react';

/** What a screen leaves out and how it is laid out on paper hangs on this attribute of the document. */
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
