import { build } from 'esbuild'

/** Translates what the start script runs, with all it needs in the same few files: read in two thirds of the time. */
await build({
  entryPoints: ['scripts/database.ts', 'scripts/backup.ts', 'scripts/invite.ts', 'devices/main.ts'],
  bundle: true,
  splitting: true,
  // Compiled for the machine; and the other way to the database, which nobody takes.
  external: ['sharp', 'pg-native'],
  platform: 'node',
  format: 'esm',
  outdir: '.output/tools',
  outExtension: { '.js': '.mjs' },
  banner: {
    js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url)",
  },
  logLevel: 'warning',
})
