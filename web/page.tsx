import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/dropzone/styles.css';
import '@fontsource-variable/archivo/wdth.css';
import './app/theme.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router/dom';
import { SignedIn } from './account/signed-in.tsx';
import { keyIn, SharedPage } from './links/shared-page.tsx';
import { router } from './router.tsx';
import { resolver, theme } from './app/theme.ts';
import { keepConnected } from './state/live.ts';
import { queryClient } from './state/queries.ts';

const shared = keyIn(window.location.pathname);
// Whoever reads what was shared sees nothing of the bays.
if (shared === undefined) keepConnected();
const root = document.getElementById('root');
if (!root) throw new Error('The document has no place for the page.');
createRoot(root).render(
  <MantineProvider theme={theme} cssVariablesResolver={resolver} defaultColorScheme="auto">
    <QueryClientProvider client={queryClient}>
      <Notifications position="bottom-left" />
      {/* What a press wrote into the address is drawn before the next press: a transition could come after it. */}
      {shared === undefined ? (
        <SignedIn>
          <RouterProvider router={router} useTransitions={false} />
        </SignedIn>
      ) : (
        <SharedPage shared={shared} />
      )}
    </QueryClientProvider>
  </MantineProvider>,
);
