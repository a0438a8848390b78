import { MantineProvider } from '@mantine/core';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';

/** Renders a component as the page does: in Mantine, whose questions to the browser get an answer. */
export function rendered(ui: ReactNode) {
  window.matchMedia ??= (query: string) =>
    ({
      matches: false,
      media: query,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }) as unknown as MediaQueryList;
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  const within = (node: ReactNode) => <MantineProvider env="test">{node}</MantineProvider>;
  const result = render(within(ui));
  return { ...result, rerender: (node: ReactNode) => result.rerender(within(node)) };
}
