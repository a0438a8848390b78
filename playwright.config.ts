import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  // Longer runs, and further cases of what a shorter test holds already (`@long`), stand behind `npm run soak`.
  projects: process.env.SUVOK_SOAK
    ? [
        { name: 'soak', testMatch: '*.soak.ts' },
        { name: 'long', testMatch: '*.e2e.ts', grep: /@long/ },
      ]
    : [{ name: 'browser', testMatch: '*.e2e.ts', ...(process.env.SUVOK_LONG ? {} : { grepInvert: /@long/ }) }],
  workers: 2,
  fullyParallel: true,
  // No test is red for being slow: what never comes is what a limit is for.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  retries: process.env.CI ? 1 : 0,
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    launchOptions: {
      executablePath: process.env.SUVOK_CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        '--disable-component-update',
      ],
    },
  },
});
