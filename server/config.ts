import { tmpdir } from 'node:os'

/** The environment, read once. */
function read() {
  const databaseUrl = process.env.NINE_RIPPLES_DATABASE_URL
  if (!databaseUrl) throw new Error('NINE_RIPPLES_DATABASE_URL is not set; start with ./bin/start')
  const devicePort = process.env.NINE_RIPPLES_DEVICE_PORT
  return {
    databaseUrl,
    /** A second database that follows; undefined: there is none. */
    replicaUrl: process.env.NINE_RIPPLES_REPLICA_URL,
    /** Where files lie while they are worked on: they may be as large as a workshop. */
    workFolder: process.env.NINE_RIPPLES_WORK ?? tmpdir(),
    /** Where the start script leaves backups; undefined: nobody makes any. */
    backupsFolder: process.env.NINE_RIPPLES_BACKUPS,
    /** Where devices connect; undefined: nowhere. */
    devicePort: devicePort === undefined ? undefined : Number(devicePort),
    /** Where devices of the network connect, address and port; undefined: nowhere. */
    deviceNetwork: process.env.NINE_RIPPLES_DEVICE_NETWORK,
    /** Where the log is kept; undefined: on standard error. */
    logPath: process.env.NINE_RIPPLES_LOG,
    /** Seals what devices of the network were let in with. */
    sessionKey: process.env.NINE_RIPPLES_SESSION_KEY,
    /** Under which names and ports the network reaches this server, the first of them to be told; none: it does not. */
    sharedHosts: process.env.NINE_RIPPLES_SHARED_HOSTS?.split(',') ?? [],
    /** What alone stands before this server, by address; undefined: whoever asks it directly sits at this machine. */
    proxies: process.env.NINE_RIPPLES_PROXIES?.split(','),
    /** Where the other processes of this server reach this one; undefined: there are none. */
    ownAddress: process.env.NINE_RIPPLES_OWN_ADDRESS,
    logLevel: process.env.NINE_RIPPLES_LOG_LEVEL ?? 'info',
  }
}

let config: ReturnType<typeof read> | undefined

export function useConfig() {
  config ??= read()
  return config
}
