import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url))
const alias = { '#core': at('./core'), '~~': at('.'), '~': at('./app') }

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
            'app/**/*.test.ts',
            'devices/**/*.test.ts',
            'tests/unit/**/*.test.ts',
          ],
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
          // Each file starts servers of its own; two cores carry two at a time.
          maxWorkers: 2,
        },
      },
    ],
  },
})
