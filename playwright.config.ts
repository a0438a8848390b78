import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  // Longer runs, behind `npm run soak`.
  testMatch: process.env.SUVOK_SOAK ? '*.soak.ts' : '*.e2e.ts',
  workers: 2,
  fullyParallel: true,
  timeout: 100_000,
  // Two whole Suvoks share the machine with their browsers.
  expect: { timeout: 20_000 },
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
