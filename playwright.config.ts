import { defineConfig } from '@playwright/test'
import { LIGHT } from './scripts/lib/browser.mjs'
import { WORKERS } from './tests/e2e/support'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/e2e/global-setup.ts',
  timeout: 150_000,
  expect: { timeout: 30_000 }, // two cores for two browsers, their servers and databases: what takes 3 s alone took 15
  workers: WORKERS,
  retries: 1, // a busy machine can outlast a wait; what needed a second try is listed as flaky, what fails twice fails
  reporter: [['list'], ['json']],
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: LIGHT,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
