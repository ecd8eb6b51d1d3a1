import { afterAll, beforeAll } from 'vitest'
import { createTestDatabase } from './database'
import { send } from './http'
import { startServer, type TestServer } from './server'

/** A migrated database and a server of its own for one file of tests; call it at the file's top. */
export function withServer() {
  const suite = {
    database: undefined as never as Awaited<ReturnType<typeof createTestDatabase>>,
    server: undefined as never as TestServer,
    send: (...[method, path, body, headers]: [string, string, unknown?, Record<string, string>?]) =>
      send(suite.server, method, path, body, headers),
  }
  beforeAll(async () => {
    suite.database = await createTestDatabase()
    suite.server = await startServer(suite.database.url)
  })
  afterAll(async () => {
    await suite.server?.stop()
    await suite.database?.drop()
  })
  return suite
}
