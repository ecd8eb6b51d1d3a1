import { randomUUID } from 'node:crypto'
import type { TestServer } from '../tests/support/server'
import { rank } from './measured'

/** What screens ask for that looks through pours, and how long it may take with 100 000. */
export const VIEWS: [what: string, path: string, most: number][] = [
  ['stock of bags', '/api/bags?limit=100', 20],
  ['shelf of moulds', '/api/moulds?limit=100', 50],
  ['search without a hit', '/api/pours?q=zqxjkv&limit=10', 100],
  ['search for two letters without a hit', '/api/pours?q=zq&limit=10', 100],
  ['search that hits everything', '/api/pours?q=measured&limit=10', 100],
  ['one verdict', '/api/pours?verdict=failed&limit=10', 100],
  ['first page of the log', '/api/pours?limit=10', 100],
  ['the bench', '/api/bench?limit=100', 100],
  ['the last casts, for a day away', '/api/pours/last', 100],
  ['failures of one cause', '/api/pours?tags=cause:no_tap&limit=10', 100],
  ['pours of one plaster, which is all of them', '/api/pours?tags=plaster:$plaster&limit=10', 100],
  ['what a year of the log says', '/api/figures?months=12', 60],
]

/** The median of each, ms. @param headers say which workshop it is asked of; the first without. */
export async function viewTimes(server: TestServer, headers: Record<string, string> = {}): Promise<number[]> {
  const medians: number[] = []
  const cards = (await (await fetch(`${server.address}/api/plasters`, { headers })).json()) as {
    items: { id: string }[]
  }
  for (const [, asked] of VIEWS) {
    const path = asked.replace('$plaster', cards.items[0]?.id ?? randomUUID())
    const times: number[] = []
    for (let i = 0; i < 30; i++) {
      const startMs = performance.now()
      const answer = await fetch(server.address + path, { headers })
      await answer.arrayBuffer()
      if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
      times.push(performance.now() - startMs)
    }
    medians.push(rank(times.slice(5), 0.5))
  }
  return medians
}
