import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  CAUSES,
  FAULT_KINDS,
  SIGN,
  SIGNS,
  diagnose,
  showsAs,
  worthOf,
  type CauseId,
  type FaultKind,
  type SignId,
  type SignReadings,
} from '.'
import { CAUSE } from './causes'

type Says = Partial<Record<SignId, number>>
const readings = (says: Says): SignReadings =>
  Object.fromEntries(Object.entries(says).map(([sign, value]) => [sign, { value }]))

/** A pour by the book: what each figure is when nothing went wrong. */
const BY_THE_BOOK: Says = {
  ratio_over: 1,
  ratio_under: 1,
  ratio_unsure_thin: 0.02,
  ratio_unsure_thick: 0.02,
  soaked: 125,
  sift_pace: 60,
  stirred_effort_low: 120,
  stirred_effort_high: 120,
  stirred_until: 0.5,
  stirred_manner: 1,
  full_at: 0.7,
  ready_at: 0.6,
  tapped: 45,
  traps_left: 0,
  leaked_share: 0,
  slurry_share: 1.08,
  ran_short: 0,
  not_drained: 0,
  set_fast: 1,
  set_slow: 1,
  bag_open: 30,
  bag_damp: 0,
  salty_water: 0,
  salty_ground: 0,
  mix_temp: 19,
  mould_temp: 19,
  release_undone: 0,
  gripped: 0,
  film_used: 0,
  undercut_rigid: 0,
  thinnest: 2,
  out_at: 1.3,
  mould_damaged: 0,
  mould_not_looked_at: 0,
  drying_temp: 20,
  one_face_dry: 0,
  liquid_colour: 0,
  pigment_over: 0,
  weakening_added: 0,
  film_taken: 0,
}

describe('a record by the book', () => {
  it('is said to be clean, and leaves what it says nothing of as likely as it was', () => {
    const found = diagnose(['air_holes'], readings(BY_THE_BOOK))
    expect(found.clean).toBe(true)
    // Nothing tells how high it was poured: it stays open, before all that the record speaks against.
    expect(found.causes[0]!.cause).toBe('poured_high')
    for (const c of found.causes) expect(c.chance).toBeGreaterThan(0)
  })
  it('makes no cause likelier by itself than one pour in eight', () => {
    for (const c of diagnose(FAULT_KINDS, readings(BY_THE_BOOK)).causes)
      expect(c.byRecord, c.cause).toBeLessThan(1 / 8)
  })
  it('gives each cause what speaks for it and against it, the weightiest first, and leaves out what says nothing', () => {
    const says = { ...BY_THE_BOOK, stirred_until: 1.3, stirred_effort_high: 120, tapped: 0, soaked: 60 }
    const { causes } = diagnose(['air_holes', 'soft'], readings(says))
    const of = (cause: CauseId) => causes.find((c) => c.cause === cause)!
    expect(of('no_tap')).toMatchObject({ for: [{ sign: 'tapped', value: 0 }], against: [] })
    expect(of('stirred_long').for.map((e) => e.sign)).toEqual(['stirred_until'])
    expect(of('stirred_long').against.map((e) => e.sign)).toEqual(['stirred_effort_high'])
    for (const c of causes)
      for (const found of [c.for, c.against]) {
        const weights = found.map((e) => Math.abs(e.lnRatio))
        expect(weights).toEqual([...weights].sort((a, b) => b - a))
        for (const w of weights) expect(w).toBeGreaterThanOrEqual(0.1)
      }
    expect(of('poured_high')).toMatchObject({ for: [], against: [] })
  })
  it('what stands out and would not show like this is said beside, and the record is not clean then', () => {
    const found = diagnose(['crystals'], readings({ ...BY_THE_BOOK, tapped: 0, out_at: 0.6 }))
    expect(found.besides).toMatchObject([
      { cause: 'no_tap', for: [{ sign: 'tapped' }] },
      { cause: 'early_out', for: [{ sign: 'out_at' }] },
    ])
    expect(found.clean).toBe(false)
    expect(diagnose(['crystals'], readings({ ...BY_THE_BOOK, tapped: 0 }), new Set(['no_tap'])).clean).toBe(
      true,
    )
    expect(diagnose(['air_holes'], readings({ ...BY_THE_BOOK, tapped: 0 })).besides).toEqual([])
  })
  it('with no fault seen names no cause', () => {
    expect(diagnose([], readings(BY_THE_BOOK)).causes).toEqual([])
  })
})

/** The same by trying every set of causes: the definition of a noisy or, for a few of them. */
function byEnumeration(
  faults: readonly FaultKind[],
  causes: readonly CauseId[],
  chance: number[],
  leak = 0.04,
) {
  const sums = causes.map(() => 0)
  let all = 0
  for (let set = 0; set < 1 << causes.length; set++) {
    const happened = causes.map((_, i) => Boolean(set & (1 << i)))
    const prior = happened.reduce((p, h, i) => p * (h ? chance[i]! : 1 - chance[i]!), 1)
    const shows = faults.reduce(
      (p, f) => p * (1 - causes.reduce((m, c, i) => (happened[i] ? m * (1 - showsAs(c, f)) : m), 1 - leak)),
      1,
    )
    all += prior * shows
    for (const [i, h] of happened.entries()) if (h) sums[i]! += prior * shows
  }
  return sums.map((s) => s / all)
}

it('agrees with trying every set of causes', () => {
  const faults: FaultKind[] = ['bumps', 'crystals', 'stains']
  const says = { salty_water: 1, mould_damaged: 1, film_used: 1, one_face_dry: 1, set_fast: 0.8 }
  const found = diagnose(faults, readings(says))
  const causes = found.causes.map((c) => c.cause)
  const chances = byEnumeration(
    faults,
    causes,
    found.causes.map((c) => c.byRecord),
  )
  expect(causes.length).toBeGreaterThan(5)
  for (const [i, c] of found.causes.entries()) expect(c.chance).toBeCloseTo(chances[i]!, 12)
})

const anyFaults = fc.uniqueArray(fc.constantFrom(...FAULT_KINDS), { minLength: 1, maxLength: 5 })
const anyReadings = fc
  .uniqueArray(fc.tuple(fc.constantFrom(...SIGNS), fc.double({ min: 0, max: 3, noNaN: true })), {
    selector: ([sign]) => sign,
  })
  .map((pairs) => readings(Object.fromEntries(pairs)))

describe('whatever was seen', () => {
  it('chances are chances, seeing a fault never makes less likely what would show as it, and order is nothing', () => {
    fc.assert(
      fc.property(anyFaults, anyReadings, (faults, says) => {
        const found = diagnose(faults, says)
        for (const c of found.causes) {
          expect(c.chance).toBeGreaterThan(0)
          expect(c.chance).toBeLessThanOrEqual(1 + 1e-12)
        }
        const alone = diagnose([faults[0]!], says)
        for (const c of alone.causes) expect(c.chance).toBeGreaterThanOrEqual(c.byRecord - 1e-12)
        const again = diagnose([...faults, ...faults].reverse(), says)
        for (const c of found.causes)
          expect(again.causes.find((a) => a.cause === c.cause)!.chance).toBeCloseTo(c.chance, 10)
      }),
      { numRuns: 60 },
    )
  })
  it('more evidence for one cause makes it likelier and explains the others away', () => {
    const before = diagnose(['air_holes'], readings({ soaked: 100 }))
    const after = diagnose(['air_holes'], readings({ soaked: 10 }))
    const chance = (d: typeof before, cause: CauseId) => d.causes.find((c) => c.cause === cause)!.chance
    expect(chance(after, 'soak_short')).toBeGreaterThan(chance(before, 'soak_short'))
    for (const cause of ['no_tap', 'poured_high', 'stirred_hard'] as const)
      expect(chance(after, cause)).toBeLessThan(chance(before, cause))
    expect(after.other).toBeLessThan(before.other)
  })
  it('all fifteen at once still sum to something', () => {
    const found = diagnose(FAULT_KINDS, readings(BY_THE_BOOK))
    for (const c of found.causes) expect(c.chance).toBeGreaterThan(0)
    expect(found.causes.length).toBe(CAUSES.length)
  })
})

it('a figure is worth more the further it is out, in one direction, and never a certainty', () => {
  for (const sign of SIGNS) {
    const points = SIGN[sign].worth
    const worths = points.map(([, lnRatio]) => lnRatio)
    const rises = worths.at(-1)! > worths[0]!
    for (const [i, w] of worths.entries())
      if (i > 0) expect(rises ? w > worths[i - 1]! : w < worths[i - 1]!).toBe(true)
    for (const [i, [at]] of points.entries()) if (i > 0) expect(at).toBeGreaterThan(points[i - 1]![0])
    for (const w of worths) expect(Math.abs(w)).toBeLessThanOrEqual(3)
    expect(worthOf(sign, points[0]![0] - 10)).toBe(worths[0])
    expect(worthOf(sign, points.at(-1)![0] + 10)).toBe(worths.at(-1))
    const [[a, u], [b, v]] = [points[0]!, points[1]!]
    expect(worthOf(sign, (a + b) / 2)).toBeCloseTo((u + v) / 2, 10)
  }
})

it('every cause shows as something, and every fault has causes', () => {
  for (const cause of CAUSES) expect(FAULT_KINDS.some((f) => showsAs(cause, f) > 0)).toBe(true)
  // None is common enough to be believed of itself, or so sure to show that its absence would acquit it.
  for (const cause of CAUSES) {
    expect(CAUSE[cause].base, cause).toBeLessThan(0.2)
    for (const fault of FAULT_KINDS) expect(showsAs(cause, fault), `${cause} ${fault}`).toBeLessThan(0.85)
  }
  for (const fault of FAULT_KINDS)
    expect(CAUSES.filter((c) => showsAs(c, fault) > 0).length).toBeGreaterThanOrEqual(2)
})
