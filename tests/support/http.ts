import type { TestServer } from './server'

/** Sends to a test server and reads its JSON answer. A string goes as it is. */
export async function send(
  server: TestServer,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
) {
  const raw = typeof body === 'string' || body instanceof Uint8Array
  const answer = await fetch(`${server.address}${path}`, {
    method,
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
  })
  return {
    status: answer.status,
    json: (await answer.json()) as never as Record<string, never> & { error?: never },
  }
}
