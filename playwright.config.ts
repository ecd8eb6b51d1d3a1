import { defineConfig } from '@playwright/test'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './scripts/chromium'

export default defineConfig({
  testDir: 'tests/e2e',
  globalSetup: './tests/support/sharedServer.ts',
  // Everything waits on something that happens: so long takes only what hangs, also on a machine that is busy otherwise.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  // Every test waits a good deal for scales, clocks and the server: two cores carry three.
  workers: 3,
  fullyParallel: true,
  retries: 0,
  forbidOnly: true,
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: CHROMIUM_PATH,
      args: [
        ...CHROMIUM_ARGS,
        // Each page lives for a minute: what is compiled to run fastest costs more of it than it saves.
        '--js-flags=--no-turbofan',
        // A microphone that hears a beep each second, for the test of the noise that counts as a knock.
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
      ],
    },
    trace: 'off',
    contextOptions: { reducedMotion: 'reduce' },
    // What is kept for a day away would answer in the place of what a test means to be asked; that day has a test of its own.
    serviceWorkers: 'block',
  },
})
