import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'
import { alphaTimeS, heatMarks, heatMix, solveHeat, type HeatPiece } from '../heat'
import { consistencyFromPartsByVolume, mixProperties } from '../mix'
import { plasterProperties, type PlasterClassId } from '../plaster'
import { eventAlpha, halfHydrationOf } from '../setting'

interface Cast {
  classId: PlasterClassId
  consistency?: number
  tempC?: number
  sizeMm?: number
  walls?: HeatPiece['walls']
  standsOn?: HeatPiece['standsOn']
  shape?: HeatPiece['shape']
}

/** What the model says of a cast, min since powder met water; everything at one temperature, 2 min by hand. */
function cast({ classId, tempC = 20, sizeMm = 25, shape = 'slab', ...rest }: Cast) {
  const plaster = plasterProperties(classId)
  const consistency = rest.consistency ?? plaster.useConsistency
  const setting = {
    plaster,
    consistency,
    mixTempC: tempC,
    stirS: 120,
    stirManner: 'hand' as const,
    restS: 0,
    ratioSigmaLn: 0,
  }
  const mix = mixProperties({ plaster, consistency, waterTempC: tempC, airFraction: 0.01 })
  const run = solveHeat({
    mix: heatMix(plaster, consistency, mix),
    piece: {
      shape,
      sizeMm,
      walls: rest.walls ?? [{ material: 'silicone', thicknessMm: 6 }],
      standsOn: rest.standsOn ?? (shape === 'slab' ? 'bench' : 'air'),
      top: 'open',
    },
    around: { airTempC: tempC, rhPct: 50, speedMS: 0.2, mouldTempC: tempC, groundTempC: tempC, sunWM2: 0 },
    mixTempC: tempC,
    halfHydrationMin: halfHydrationOf(setting),
    pouredAtS: 0,
    ageAtPourMin: 0,
    untilS: 6 * 3600,
  })
  const marks = heatMarks(run, tempC)
  const slowest = (alpha: number) => alphaTimeS(run, alpha, 'slowest')! / 60
  return {
    work: alphaTimeS(run, eventAlpha('work_end', setting), 'mean')! / 60,
    final: alphaTimeS(run, eventAlpha('final_set', setting), 'mean')! / 60,
    peak: marks.peakS / 60,
    cool: (marks.coolS ?? Infinity) / 60,
    slowest,
    alphaAt: (min: number) => 100 * run.meanAlpha[run.timeS.findIndex((t) => t >= 60 * min)]!,
  }
}

/** Powder by volume to one of water, as dense as it is scooped, kg/m³. */
const byVolume = (parts: number, bulk: number) => consistencyFromPartsByVolume(parts, bulk)

type Fact = [fact: string, said: [low: number, high: number], unit: string, model: () => number]

/** Common practice, no source: what casters say of times, and what one parameter set makes of it. */
const FACTS: Fact[] = [
  [
    '50 ml to 100 g of plaster of Paris: handled at 40 min (α .95)',
    [15, 40],
    'min',
    () => cast({ classId: 'pop', consistency: 50 }).slowest(0.95),
  ],
  [
    '2 : 1 by volume, scooped as usual: firm at 15–20 min',
    [14, 22.5],
    'min',
    () => cast({ classId: 'pop', consistency: byVolume(2, 850) }).final,
  ],
  [
    '2 : 1 by volume, scooped loose: firm at 15–20 min',
    [14, 22.5],
    'min',
    () => cast({ classId: 'pop', consistency: byVolume(2, 750) }).final,
  ],
  [
    'a thin plate: warm, then cool at 30 min',
    [25, 35],
    'min',
    () => cast({ classId: 'pop', consistency: 50, sizeMm: 8 }).cool,
  ],
  [
    '4–7 °C on wet silt: flaky at 25 min and later (set, %)',
    [10, 60],
    '%',
    () =>
      cast({
        classId: 'pop',
        consistency: byVolume(2, 850),
        tempC: 5,
        sizeMm: 20,
        walls: [],
        standsOn: 'wet_silt',
      }).alphaAt(25),
  ],
  [
    '14 cups to 10 lb at 35 °C: out at 45 min (α .90)',
    [38, 50],
    'min',
    () => cast({ classId: 'pottery', consistency: 72.9, tempC: 35 }).slowest(0.9),
  ],
  [
    'gypsum cement, 2 : 1 by volume: 5–10 min to work',
    [5, 10],
    'min',
    () => cast({ classId: 'gc', consistency: byVolume(2, 1000), sizeMm: 60 }).work,
  ],
  [
    'gypsum cement, 2 : 1 by volume: hard at 10–15 min',
    [10, 15],
    'min',
    () => cast({ classId: 'gc', consistency: byVolume(2, 1000), sizeMm: 60 }).final,
  ],
  [
    'gypsum cement, 60 mm: out at 60 min, still warm (cool again at)',
    [60, 240],
    'min',
    () => cast({ classId: 'gc', consistency: byVolume(2, 1000), sizeMm: 60 }).cool,
  ],
  [
    'hydrostone type, 25–30 °C: out at 20–30 min (final set)',
    [15, 30],
    'min',
    () => cast({ classId: 'hsgc', tempC: 27 }).final,
  ],
  [
    'plaster, silica, water 1 : 1 : 1: out at 30–45 min (α .90)',
    [28, 45],
    'min',
    () =>
      cast({ classId: 'investment', sizeMm: 65, walls: [{ material: 'wet_clay', thicknessMm: 20 }] }).slowest(
        0.9,
      ),
  ],
  [
    'latex, 60 mm: 2–3 h, when it is cool again',
    [110, 190],
    'min',
    () =>
      cast({ classId: 'gc', shape: 'cylinder', sizeMm: 30, walls: [{ material: 'latex', thicknessMm: 2 }] })
        .cool,
  ],
  [
    'latex, 60 mm: 2–3 h, by its set (α .98)',
    [110, 190],
    'min',
    () =>
      cast({
        classId: 'gc',
        shape: 'cylinder',
        sizeMm: 30,
        walls: [{ material: 'latex', thicknessMm: 2 }],
      }).slowest(0.98),
  ],
]

it('what casters say of times, and which of it the model agrees with: as docs/science.md prints it', () => {
  const rows = FACTS.map(([fact, [low, high], unit, model]) => {
    const found = model()
    const verdict = found < low ? 'model earlier' : found > high ? 'model later' : 'agrees'
    return `| ${fact} | ${Math.round(found)} ${unit} | ${verdict} |`
  })
  const squeezed = (text: string) => text.replaceAll(/ +/g, ' ')
  const docs = squeezed(
    readFileSync(fileURLToPath(new URL('../../docs/science.md', import.meta.url)), 'utf8'),
  )
  expect(rows.filter((r) => !docs.includes(squeezed(r)))).toEqual([])
  // Most of it; what does not is said, not tuned away.
  expect(rows.filter((r) => r.includes('agrees')).length).toBeGreaterThanOrEqual(9)
})
