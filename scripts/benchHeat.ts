import { convectionWM2K } from '../core/drying'
import { learnPace, runAtPace, setCurve, type SetProblem } from '../core/forecast'
import { HEAT_DEFAULTS, WALLS, alphaTimeS, heatMarks, solveHeat, type HeatInput } from '../core/heat'
import { evidenceOf, foldPour, keepPlan, problemIf } from '../core/pour'
import { halfHydrationOf, hydration, settingRate } from '../core/setting'
import { testPlan, wholeRun } from '../tests/unit/plans'
import { medianMs } from './median'

const THREE_HOURS_S = 3 * 3600
/** As core/heat cuts a wall. */
const WALL_CELLS = 8

/**
 * The same cells stepped explicitly, as long a step as the smallest of them allows: half a slab in a skin of latex.
 * @returns its peak, °C.
 */
function explicitRun(input: HeatInput, forS: number): number {
  const { mix, around, halfHydrationMin, piece } = input
  const [wall] = piece.walls
  const { conductivityWMK: wallK, capacityJM3K: wallC } = WALLS[wall!.material]
  const m = HEAT_DEFAULTS.castCells
  const n = m + WALL_CELLS
  const width = (i: number) => (i < m ? piece.sizeMm / 2000 / m : wall!.thicknessMm / 1000 / WALL_CELLS)
  const k = (i: number) => (i < m ? mix.conductivityWMK : wallK)
  const least = mix.capacityJM3K - mix.capacityLossJM3K
  const stepS =
    0.45 * Math.min((width(0) ** 2 * least) / mix.conductivityWMK, (width(m) ** 2 * wallC) / wallK)
  const conductance = Float64Array.from(
    { length: n },
    (_, i) =>
      1 /
      (width(i) / 2 / k(i) +
        (i + 1 < n ? width(i + 1) / 2 / k(i + 1) : 1 / (convectionWM2K(around.speedMS) + 5))),
  )
  let temp = new Float64Array(n).fill(input.mixTempC)
  let next = new Float64Array(n)
  const age = new Float64Array(m)
  let peakC = 0
  for (let t = 0; t < forS; t += stepS) {
    for (let i = 0; i < n; i++) {
      let [source, capacity] = [0, wallC]
      if (i < m) {
        const before = hydration(age[i]!, halfHydrationMin)
        age[i]! += (settingRate(temp[i]!) * stepS) / 60
        const change = hydration(age[i]!, halfHydrationMin) - before
        capacity = mix.capacityJM3K - mix.capacityLossJM3K * before
        source = mix.hemihydrateKgM3 * (mix.heatJKg + 319 * (temp[i]! - 25)) * change
      }
      const inward = i > 0 ? conductance[i - 1]! * (temp[i - 1]! - temp[i]!) : 0
      const outward = conductance[i]! * ((i + 1 < n ? temp[i + 1]! : around.airTempC) - temp[i]!)
      next[i] = temp[i]! + ((stepS / width(i)) * (inward + outward) + source) / capacity
      if (next[i]! > peakC) peakC = next[i]!
    }
    ;[temp, next] = [next, temp]
  }
  return peakC
}

/** Heat, forecast and what-if: rows as the bench prints them. */
export function benchHeat(): [what: string, measured: number, unit: string, target: number][] {
  const plan = testPlan('gc')
  const facts = foldPour(
    keepPlan(plan),
    wholeRun().filter((e) => e.occurredAtMs <= 12 * 60_000 && e.body.type !== 'weighed'),
  )
  const { problem } = evidenceOf(facts, [])!
  const hour3 = medianMs(() => runAtPace(problem, 1, THREE_HOURS_S), 60)

  const input: HeatInput = {
    mix: problem.mix,
    piece: {
      shape: 'slab',
      sizeMm: 25,
      walls: [{ material: 'latex', thicknessMm: 2 }],
      standsOn: 'air',
      top: 'covered',
    },
    around: problem.around,
    mixTempC: 20,
    halfHydrationMin: halfHydrationOf(problem.setting),
    pouredAtS: 0,
    ageAtPourMin: 0,
    untilS: THREE_HOURS_S,
  }
  const fine = heatMarks(solveHeat(input, { stepS: 0.5, castCells: 96 }), 20).peakC
  const off = [heatMarks(solveHeat(input), 20).peakC, explicitRun(input, 3600)].map((c) => Math.abs(c - fine))
  // Neither is nearer the truth by more than a tenth of a kelvin: their cells are the same.
  if (Math.max(...off) > 0.1) throw new Error(`the two schemes are not of equal error: ${off.join(', ')} K`)
  const implicit = medianMs(() => solveHeat(input), 60)
  const explicit = medianMs(() => explicitRun(input, THREE_HOURS_S), 5)

  const truth = runAtPace(problem, 0.85, 5400)
  const readings = Array.from({ length: 400 }, (_, i) => {
    const timeS = problem.pouredAtS + 10 * i
    const at = truth.timeS.findIndex((t) => t >= timeS)
    return { timeS, tempC: truth.coreC[at]! }
  })
  const cues = [
    {
      id: 'a',
      cue: 'thumbnail_no_dent' as const,
      answer: 'now' as const,
      by: 'a',
      atS: alphaTimeS(truth, 0.55, 'mean')!,
    },
  ]
  const refit = medianMs(() => learnPace({ problem, cues, probes: [{ readings }] }, 4000), 20)
  const pace = { meanLn: 0, sigmaLn: 0.3 }
  const whatIf = (of: SetProblem) =>
    setCurve(problemIf(of, plan, { waterTempC: 8, sizeMm: 40 }), pace, 2 * 3600)
  return [
    ['heat of a pour, 3 h, median', hour3, 'ms', 10],
    [
      'its time against an explicit scheme of equal error, at most a twentieth',
      implicit / explicit,
      '',
      0.05,
    ],
    ['pace learnt anew: 400 readings, a cue, 401 points, 17 heat runs, median', refit, 'ms', 100],
    ['what if: one change drawn anew, median', medianMs(() => whatIf(problem), 40), 'ms', 50],
  ]
}
