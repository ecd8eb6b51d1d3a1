import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = { '#core': at('./core'), '~~': at('.'), '~': at('./app') }
const setupFiles = [at('./tests/support/dice.ts')]

export default defineConfig({
  test: {
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
          ],
          // Pure code keeps nothing between files: read in once for all of them it takes half as long.
          isolate: false,
          setupFiles,
        },
      },
      {
        resolve: { alias },
        test: { name: 'app', include: ['app/**/*.test.ts'], setupFiles },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
          // Each file starts servers of its own, and waits for them more than it works: two cores carry three.
          maxWorkers: 3,
        },
      },
    ],
  },
})
