import { existsSync } from 'node:fs'

const [SHELL, WHOLE] = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']
/** Debian's Chromium: its shell without a window, which opens pages in half the time, or the whole of it. */
export const CHROMIUM_PATH = existsSync(SHELL) ? SHELL : WHOLE

/** Headless, quiet on the network and able to reach this machine only. */
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE 127.0.0.4',
]
