export const CHROMIUM_PATH = '/usr/bin/chromium-headless-shell'

/** Debian's Chromium, headless, quiet on the network and able to reach this machine only. */
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1',
]
