import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: 'tests',
  globalSetup: './support/cluster.ts',
  workers: 2,
  // Tests of one file may run at the same time, so that neither worker is idle at the end.
  fullyParallel: true,
  timeout: 120_000,
  reporter: [['list']],
  // A busy machine may take its time; what never comes still fails.
  expect: { timeout: 15_000 },
  use: {
    actionTimeout: 15_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--font-render-hinting=none',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Pages live for a minute or less: optimising their scripts takes longer than it saves.
        '--js-flags=--max-opt=1',
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
      ],
    },
  },
})
