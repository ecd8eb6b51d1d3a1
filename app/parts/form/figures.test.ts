import { format } from 'date-fns'
import { afterEach, describe, expect, it } from 'vitest'
import { usualFacts, type VolumeMethod } from '#core/mould'
import { evaluatePlan, remediesFor, type PourPlan } from '#core/pour'
import { parseQuantity, type QuantityKind, type UnitSystem } from '#core/units'
import type { BowlCard } from '~~/shared/stock'
import { TEST_SETTINGS, testPlan } from '../../../tests/unit/plans'
import { counted } from '~/parts/show/counted'
import { SHOWN_WAYS } from '~/parts/mould/ways'
import { FIRST_SHAPES } from '~/parts/mould/ways/shape'
import { firstMouldDraft, thicknessOf, wayBrings } from '~/parts/mould/mouldDraft'
import { emptyDraft } from '~/plan/draft/planDraft'
import { planOf } from '~/plan/draft/toPlan'
import { remedyDraft } from '~/plan/draft/choices'
import { bagStateOf } from '~/parts/plaster/plasterChoice'
import { pourTimeAtBest, pourTimeText } from '~/parts/mix/pourTime'
import { decimalSignOf, labelReadingWords, readingWords, sortedByGuess } from './quantityWords'
import { remedyWords } from '~/plan/see/remedyWords'
import { durationRangeText, durationText, spanText } from '~/parts/show/time'

describe('a day is a day here', () => {
  const zone = process.env.TZ
  afterEach(() => {
    process.env.TZ = zone
  })
  // West and east of Greenwich: late in the evening and early in the morning it is another day there.
  it.each(['America/Los_Angeles', 'UTC', 'Asia/Tokyo', 'Pacific/Auckland'])('in %s', (tz) => {
    process.env.TZ = tz
    for (const clock of ['2026-03-01T00:10:00', '2026-03-01T12:00:00', '2026-03-01T23:50:00']) {
      const nowMs = new Date(clock).getTime()
      const today = format(nowMs, 'yyyy-MM-dd')
      expect(today).toBe('2026-03-01')
      expect(bagStateOf({ keeping: 'dry_open', openedOn: today }, nowMs).openDays).toBe(0)
      expect(bagStateOf({ keeping: 'dry_open', openedOn: '2026-02-27' }, nowMs).openDays).toBe(2)
    }
  })
})

describe('what was read into it is said back', () => {
  const read = (text: string, kind: QuantityKind, system: UnitSystem = 'metric') => {
    const parsed = parseQuantity(text, kind, 'g', { system, decimalSign: null, kitchen: null })
    if (!parsed.ok) throw new Error(parsed.code)
    return readingWords(parsed, {
      system: () => system,
      volume: (ml) => `${(ml / 29.5735).toFixed(2)} fl oz`,
    })
  }
  it('only where something was', () => {
    expect(read('250 g', 'mass')).toBe('')
    expect(read('2 lb 3', 'mass')).toBe('Read as 2 lb 3 oz')
    expect(read('1 500 g', 'mass')).toBe('Read as 1500 g')
    expect(read('1 us cup', 'volume')).toBe('Read as cup, US, 236.6 ml')
    expect(read('1 cup', 'volume', 'us')).toBe('Read as cup, US, 8.00 fl oz')
  })
  it('and of two readings the likelier by the browser comes first', () => {
    const ask = (text: string, kind: QuantityKind, language: string) => {
      const parsed = parseQuantity(text, kind, 'g', { system: 'metric', decimalSign: null, kitchen: null })
      if (parsed.ok || parsed.code !== 'ambiguous') throw new Error('not asked')
      return sortedByGuess(parsed.readings, text, language)[0]!.canonical
    }
    expect(decimalSignOf('de-DE')).toBe('comma')
    expect(ask('1,500 g', 'mass', 'en-GB')).toBe('1500 g')
    expect(ask('1,500 g', 'mass', 'de-DE')).toBe('1.5 g')
    expect(ask('1.500 g', 'mass', 'de-DE')).toBe('1500 g')
    expect(ask('1 pint', 'volume', 'en-US')).toBe('1 US pint')
    expect(ask('1 pint', 'volume', 'en-GB')).toBe('1 imperial pint')
  })
  it('labels too, with their range and whose measures', () => {
    expect(labelReadingWords({ by: 'weight', consistency: 67.5, range: { low: 65, high: 70 } })).toBe(
      '65 to 70 of water to 100 by weight',
    )
    expect(labelReadingWords({ by: 'weight', consistency: 72.89, size: 'US' })).toContain('72.9')
    expect(labelReadingWords({ by: 'volume', powderParts: 2, consistency: 58.7 })).toContain('about 59')
  })
})

it('numbers and their nouns agree', () => {
  expect([counted(1, 'bowl'), counted(2, 'bowl'), counted(0, 'cavity'), counted(0.5, 'day')]).toEqual([
    '1 bowl',
    '2 bowls',
    '0 cavities',
    '0.5 days',
  ])
})

it('more than a year is said, not counted', () => {
  const DAY_S = 86_400
  expect(durationText(364 * DAY_S)).toBe('364 days')
  expect(durationText(366 * DAY_S)).toBe('more than a year')
  expect(durationRangeText(200 * DAY_S, 900 * DAY_S)).toBe('200 days – more than a year')
  expect(durationRangeText(500 * DAY_S, 900 * DAY_S)).toBe('more than a year')
  expect(spanText(400 * DAY_S * 1000)).toBe('more than a year')
})

it('the time to pour is its early end, everywhere', () => {
  expect(pourTimeText({ low: 130, mid: 300, high: 520 })).toBe('2 min')
  expect(pourTimeAtBest({ low: 130, mid: 300, high: 520 })).toBe('perhaps 8½ min')
  expect(pourTimeText({ low: -40, mid: 60, high: 200 })).toBe('hardly any')
  expect(pourTimeAtBest({ low: -90, mid: -60, high: -20 })).toBe('')
})

describe('what a way of finding the volume brought along', () => {
  const slab: VolumeMethod = { by: 'shape', shape: FIRST_SHAPES.slab }
  const cylinder: VolumeMethod = { by: 'shape', shape: FIRST_SHAPES.cylinder }
  const after = (...ways: VolumeMethod[]) =>
    ways.reduce((draft, way) => ({ ...draft, ...wayBrings(draft, way) }), firstMouldDraft())
  it('leaves again with it', () => {
    expect(after(SHOWN_WAYS.ground.first)).toMatchObject({ purpose: 'print', facts: usualFacts('sand_soil') })
    expect(after(SHOWN_WAYS.ground.first, SHOWN_WAYS.shell.first).facts).toEqual(usualFacts('wet_clay'))
    expect(after(SHOWN_WAYS.ground.first, SHOWN_WAYS.shell.first, cylinder)).toMatchObject({
      purpose: 'figure',
      facts: usualFacts('silicone'),
    })
  })
  it('unless the caster chose it', () => {
    const chosen = { ...after(SHOWN_WAYS.ground.first), facts: usualFacts('wood'), purpose: 'tile' as const }
    expect(wayBrings(chosen, cylinder).purpose).toBe('tile')
    expect(wayBrings(chosen, cylinder).facts).toEqual(usualFacts('wood'))
    // One fact of what came was put otherwise: that stays, the rest leaves.
    const shell = after(SHOWN_WAYS.shell.first)
    const hooked = { ...shell, facts: { ...shell.facts, undercut: 'deep' as const } }
    expect(wayBrings(hooked, cylinder).facts).toEqual({ ...usualFacts('silicone'), undercut: 'deep' })
  })
  it('a slab is a drying slab, and dries like one', () => {
    const volume = { ...firstMouldDraft().volume, parts: [{ role: 'add' as const, count: 1, method: slab }] }
    const draft = { ...after(slab), volume }
    expect(draft.purpose).toBe('slab')
    expect(thicknessOf(draft)).toBe(
      slab.by === 'shape' && slab.shape.kind === 'slab' && slab.shape.thicknessMm,
    )
  })
})

describe('bowls of the shelf', () => {
  const bowl = (name: string, volumeMl: number): BowlCard => ({
    id: name,
    revision: 1,
    name,
    volumeMl,
    tareG: 200,
  })
  const stockWith = (...bowls: BowlCard[]) => ({
    plasters: [],
    bags: [],
    moulds: [],
    mouldSets: [],
    bowls,
    places: [],
    settings: TEST_SETTINGS,
  })
  const draftOf = (volumeMl: number) => {
    const draft = emptyDraft(TEST_SETTINGS)
    const method: VolumeMethod = { by: 'known', volumeMl, plusMinusPct: 5 }
    draft.described = {
      ...draft.described,
      volume: { ...draft.described.volume, parts: [{ role: 'add', count: 1, method }] },
    }
    return draft
  }
  it('the smallest that takes the job stands for “whichever is large enough”', () => {
    const plan = planOf(
      draftOf(1000),
      stockWith(bowl('Large', 12_000), bowl('Cup', 500), bowl('Basin', 4000)),
      0,
    )!
    expect(plan.batching!.bowl!.name).toBe('Basin')
  })
  it('a job that fits none of them is cut to the largest: 5.9 l of slurry in a bucket of ten', () => {
    const plan = planOf(draftOf(5360), stockWith(bowl('Bucket', 10_000), bowl('Basin', 4000)), 0)!
    const evaluation = evaluatePlan(plan)
    if (!evaluation.ok) throw new Error('refused')
    const { batches, because } = evaluation.outcome.batching
    expect(evaluation.outcome.weighOut.slurryMl).toBeCloseTo(5900, -2)
    expect(because).toBe('bowl')
    expect(batches).toHaveLength(2)
    for (const b of batches) expect(b.bowlMl).toBeLessThanOrEqual(10_000)
  })
})

describe('what gives time to pour', () => {
  const show = { temp: (c: number) => `${c.toFixed(0)} °C`, strength: (v: number) => `${v.toFixed(0)} MPa` }
  const hasty = testPlan('dental3', { waterTempC: 22, soakS: 180, stirS: 240 })
  const remedies = (plan: PourPlan) => {
    const evaluation = evaluatePlan(plan)
    return evaluation.ok ? remediesFor(plan, evaluation.outcome) : []
  }
  it('is offered in words that say what is gained and what it costs', () => {
    const words = remedies(hasty).map((r) => remedyWords(r, show))
    expect(words.length).toBeGreaterThan(4)
    for (const { take, gain, cost } of words) {
      expect(take.length).toBeGreaterThan(3)
      expect(gain).toMatch(/ (?:to pour|short)$|^Less to do/)
      expect(cost).toMatch(/\.$/)
    }
    expect(words.find((w) => w.take === 'Stir for 2 min')!.cost).toContain('lumps')
  })
  it('is taken by one press: the worksheet then means that plan', () => {
    for (const { change } of remedies(hasty)) {
      const before = { ...emptyDraft(TEST_SETTINGS), soakMin: 3, stirMin: 4, waterTempC: 22 }
      expect({ ...before, ...remedyDraft(change) }).not.toEqual(before)
    }
  })
})
