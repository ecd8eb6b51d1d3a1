import { randomUUID } from 'node:crypto'
import { rmSync } from 'node:fs'
import { sql } from 'kysely'
import { afterAll, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/client'
import { freePort } from '../support/server'
import { ownerUrlOf, pidIn, startOn, stateFolder, type Run } from '../support/startScript'
import { until } from '../support/until'
import { testPlan } from '../unit/plans'

/** The full trial is 20 rounds of 1 000 events each. */
const ROUNDS = Number(process.env.NINE_RIPPLES_KILL_ROUNDS ?? 4)
const EVENTS = Number(process.env.NINE_RIPPLES_KILL_EVENTS ?? 60)
/** It comes back in seconds; this is when the trial has failed. */
const GIVE_UP_MS = 60_000
const WHAT = ['node', 'database', 'both', 'script'] as const

const { folder, state } = stateFolder()
afterAll(() => rmSync(folder, { recursive: true, force: true }))

it(
  'whatever is killed in the middle of it, nothing acknowledged is lost, nothing is doubled, and it comes back by itself',
  async () => {
    const port = String(await freePort())
    const address = `http://127.0.0.1:${port}`
    const post = async (path: string, body: object): Promise<{ id?: string } | undefined> => {
      try {
        const answer = await fetch(address + path, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
          signal: AbortSignal.timeout(5000),
        })
        return answer.ok ? ((await answer.json()) as { id?: string }) : undefined
      } catch {
        return undefined
      }
    }
    let run: Run = startOn(state, '--port', port, '--empty')
    await run.shows(/running: http/)
    const sent: string[] = []
    for (let round = 0; round < ROUNDS; round++) {
      const what = WHAT[round % WHAT.length]!
      const pour = randomUUID()
      await until('a pour to be taken', () => post('/api/pours', { id: pour, plan: testPlan() }), GIVE_UP_MS)
      const killAt = Math.floor(EVENTS * (0.2 + 0.6 * ((round * 0.618) % 1)))
      for (let i = 0; i < EVENTS; i++) {
        const event = {
          id: randomUUID(),
          occurredAtMs: Date.now() - 1000,
          who: '',
          planRevision: 1,
          body: { type: 'note', text: `${round} ${i}` },
        }
        sent.push(event.id)
        // Under way when it is killed.
        const first = post(`/api/pours/${pour}/events`, event)
        if (i === killAt) {
          if (what !== 'database') process.kill(pidIn(state, 'server.pid'), 'SIGKILL')
          if (what !== 'node') process.kill(pidIn(state, 'data/postmaster.pid'), 'SIGKILL')
          if (what === 'script') {
            run.process.kill('SIGKILL')
            await run.ends()
            run = startOn(state, '--port', port, '--empty')
          }
        }
        if ((await first)?.id === event.id) continue
        const sendAgain = () => post(`/api/pours/${pour}/events`, event)
        await until(
          'the event to be stored',
          async () => (await sendAgain())?.id === event.id,
          GIVE_UP_MS,
        ).catch((error: unknown) => {
          throw new Error(`${String(error)}, ${what} killed in round ${round}:\n${run.output()}`)
        })
      }
    }
    const owner = openDatabase(ownerUrlOf(state), () => {})
    const { rows } = await sql<{ id: string }>`select id from event`.execute(owner.unscoped)
    await owner.close()
    expect(rows.map((r) => r.id).sort()).toEqual(sent.sort())
    run.process.kill('SIGTERM')
    expect(await run.ends()).toBe(0)
  },
  60_000 + ROUNDS * 30_000,
)
