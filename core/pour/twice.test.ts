import fc from 'fast-check'
import { expect, it } from 'vitest'
import '../../tests/support/dice'
import { eventAt } from '../../tests/unit/plans'
import { recordedTwice, type EventBody, type PourEvent } from '.'

const by = (who: string, atMs: number, body: EventBody, whoId?: string): PourEvent => ({
  ...eventAt(atMs, body),
  who,
  ...(whoId ? { whoId } : {}),
})
const told = (events: PourEvent[]) =>
  recordedTwice(events).map((c) => [c.type, c.batch, c.events.map((e) => e.who)])

it('what two recorded apart is told, the earlier first; twice by one hand, or by nobody, is not', () => {
  const events = [
    by('Ben', 500, { type: 'poured', batch: 0 }),
    by('Ana', 200, { type: 'poured', batch: 0 }),
    by('Ana', 900, { type: 'poured', batch: 1 }),
    by('ana ', 700, { type: 'mould_ready' }),
    by('Ana', 800, { type: 'mould_ready' }),
    by('', 300, { type: 'poured', batch: 0 }),
  ]
  expect(told(events)).toEqual([['poured', 0, ['Ana', 'Ben']]])
  // The same person on two devices, under two spellings.
  expect(
    told([by('Ana', 1, { type: 'mould_ready' }, 'p1'), by('Anna', 2, { type: 'mould_ready' }, 'p1')]),
  ).toEqual([])
})

it('who weighs again puts right, and each cast may be taken out by another', () => {
  expect(
    told([
      by('Ana', 1, { type: 'weighed', what: 'water', massG: 100, batch: 0 }),
      by('Ben', 2, { type: 'weighed', what: 'water', massG: 103, batch: 0 }),
      by('Ana', 3, { type: 'demoulded', outcome: 'whole', pieces: [1] }),
      by('Ben', 4, { type: 'demoulded', outcome: 'whole', pieces: [2] }),
      by('Ben', 5, { type: 'demoulded', outcome: 'broken', pieces: [1] }),
      by('Ana', 6, { type: 'note', text: 'x' }),
      by('Ben', 7, { type: 'note', text: 'x' }),
    ]),
  ).toEqual([['demoulded', 0, ['Ana', 'Ben']]])
})

it('whatever order they come home in, it is the same clash', () => {
  const events = ['Ana', 'Ben', 'Cleo'].flatMap((who, i) =>
    [0, 1].map((batch) => by(who, 100 * batch + 7 * i, { type: 'poured', batch })),
  )
  fc.assert(
    fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (shuffled) => {
      expect(recordedTwice(shuffled)).toEqual(recordedTwice(events))
    }),
  )
})
