import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import type { TestServer } from '../tests/support/server'
import { testPlan } from '../tests/unit/plans'
import { DEMO_PLASTERS } from '../server/demo/plasters'
import { DEMO_MOULDS } from '../server/demo/moulds'

/** What a number, text or list may be damaged into. */
const STRANGE: unknown[] = [
  null,
  -1,
  0,
  1e15,
  2_147_483_648,
  -1e308,
  0.1,
  '',
  'x'.repeat(5000),
  'a\u0000b',
  '\ud800',
  [],
  {},
  true,
  '1e999',
  [[[[[]]]]],
]

/** The same requests for the same seed. */
function diceOf(seed: number) {
  let state = seed
  return (sides: number) => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return Math.floor((state / 2_147_483_648) * sides)
  }
}

/** A copy with one place in it damaged. */
function damage(value: unknown, dice: (sides: number) => number): unknown {
  if (typeof value !== 'object' || value === null || dice(6) === 0) return STRANGE[dice(STRANGE.length)]
  const keys = Object.keys(value)
  if (keys.length === 0) return STRANGE[dice(STRANGE.length)]
  const key = keys[dice(keys.length)]!
  const copy = Array.isArray(value) ? [...(value as unknown[])] : { ...value }
  const inside = copy as Record<string, unknown>
  if (dice(10) === 0) delete inside[key]
  else inside[key] = damage(inside[key], dice)
  return copy
}

export interface Outcome {
  requests: number
  /** Answers that were a fault of the server's own. */
  faults: string[]
}

/** Sends requests that are almost right, pictures among them, several at once; says which the server could not stand. */
export async function sendDamaged(server: TestServer, count: number, seed: number): Promise<Outcome> {
  const dice = diceOf(seed)
  const [pour, plaster, bag] = [randomUUID(), randomUUID(), randomUUID()]
  const { plaster: _, ...mould } = DEMO_MOULDS.ammonite
  const good: [method: string, path: string, body: unknown][] = [
    ['POST', '/api/pours', { id: pour, plan: testPlan() }],
    ['PUT', `/api/plasters/${plaster}`, { revision: null, plaster: DEMO_PLASTERS.pottery }],
    [
      'PUT',
      `/api/bags/${bag}`,
      {
        revision: null,
        bag: {
          plasterId: plaster,
          name: 'Sack',
          boughtG: 25_000,
          price: 9,
          openedOn: '2026-02-03',
          keeping: 'sealed',
          scoop: { measureMl: 250, packing: 'scooped', weighedKgM3: 900 },
          counted: { leftG: 100, atMs: 1000 },
          usedUp: false,
          note: '',
        },
      },
    ],
    ['PUT', `/api/moulds/${randomUUID()}`, { revision: null, mould: { ...mould, usualPlasterId: null } }],
    [
      'PUT',
      `/api/bowls/${randomUUID()}`,
      { revision: null, bowl: { name: 'Basin', volumeMl: 900, tareG: 9 } },
    ],
    ['PUT', `/api/recipes/${randomUUID()}`, { revision: null, recipe: { name: 'Thin', plan: testPlan() } }],
    ['PUT', `/api/pours/${pour}/plan`, { revision: 1, plan: testPlan() }],
    [
      'POST',
      `/api/bags/${bag}/spoon-tests`,
      { id: randomUUID(), atMs: 5, consistency: 70, waterTempC: 20, stirS: 60, tookS: 900 },
    ],
    [
      'POST',
      `/api/pours/${pour}/events`,
      {
        id: randomUUID(),
        occurredAtMs: 5,
        who: 'x',
        shiftMs: 3,
        planRevision: 1,
        body: { type: 'weighing', massG: 5 },
      },
    ],
    ['POST', '/api/moulds/import', { format: 'nine-ripples.moulds', version: 1, moulds: [], sets: [] }],
  ]
  const send = (method: string, path: string, body?: string | Uint8Array, type = 'application/json') =>
    fetch(server.address + path, {
      method,
      headers: body === undefined ? {} : { 'content-type': type },
      ...(body === undefined ? {} : { body: body as BodyInit }),
    })
  for (const [method, path, body] of good)
    await send(method, path, JSON.stringify(body)).then((a) => a.arrayBuffer())
  const picture = await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#abc' } })
    .png({ compressionLevel: 0 })
    .toBuffer()

  const one = (): Promise<Response> => {
    const kind = dice(60)
    if (kind === 0) {
      const cut = picture.subarray(0, 1 + dice(picture.length))
      const bytes = new Uint8Array(cut)
      bytes[dice(bytes.length)] = dice(256)
      return send(
        'POST',
        `/api/photos?id=${randomUUID()}&mould=${randomUUID()}&caption=x`,
        bytes,
        'image/png',
      )
    }
    if (kind < 8) {
      const odd = ['%00', '..%2f', '9'.repeat(30), '-1', '%ff', 'null', '[]', '1e400']
      const queries = ['since', 'after', 'limit', 'q', 'verdict', 'state', 'mouldId']
      const paths = ['/api/pours', '/api/bench', '/api/moulds', '/api/bags', '/api/pours/last-mixed']
      return send(
        'GET',
        `${paths[dice(paths.length)]}?${queries[dice(queries.length)]}=${odd[dice(odd.length)]}`,
      )
    }
    const [method, path, body] = good[dice(good.length)]!
    const text = JSON.stringify(damage(body, dice)) ?? 'undefined'
    if (dice(20) === 0) return send(method, path, text.slice(0, dice(text.length)))
    const at = dice(25) === 0 ? path.replace(/[0-9a-f]{8}-/, `${'%2e'.repeat(dice(3))}x`) : path
    return send(method, at, text)
  }
  const faults: string[] = []
  let left = count
  await Promise.all(
    Array.from({ length: 16 }, async () => {
      while (left-- > 0) {
        const answer = await one()
        const text = await answer.text()
        if (answer.status >= 500) faults.push(`${answer.status} ${answer.url} ${text.slice(0, 200)}`)
      }
    }),
  )
  return { requests: count, faults }
}
