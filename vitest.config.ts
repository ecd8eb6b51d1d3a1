import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import LongestFirst from './tests/support/longestFirst'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = { '#core': at('./core'), '~~': at('.'), '~': at('./app') }
/** So long takes only what hangs: models that are run through by the hundred take seconds on a busy machine. */
const SLOWEST_MS = 60_000
const setupFiles = [at('./tests/support/dice.ts')]

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: [
            'core/**/*.test.ts',
            'shared/**/*.test.ts',
            'devices/**/*.test.ts',
            'tests/unit/**/*.test.ts',
            'app/!(stores|workers)/**/*.test.ts',
          ],
          // Pure code keeps nothing between files: read in once for all of them it takes half as long.
          isolate: false,
          setupFiles,
          testTimeout: SLOWEST_MS,
        },
      },
      {
        resolve: { alias },
        // What a window holds once is made anew for each file.
        test: {
          name: 'app',
          include: ['app/{stores,workers}/**/*.test.ts'],
          setupFiles,
          testTimeout: SLOWEST_MS,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          // What they share is code alone, as above.
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
          // Each file starts servers of its own, and waits for them more than it works: two cores carry four.
          maxWorkers: 4,
        },
      },
    ],
  },
})
