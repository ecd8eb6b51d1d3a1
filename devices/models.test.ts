import { expect, it } from 'vitest'
import { diceOf } from './dice'
import { PROBE, ProbeModel, SettingPiece } from './probeModel'
import { BENCH_SCALE, ScaleModel, type ScaleShows } from './scaleModel'

function run(scale: ScaleModel, seconds: number): ScaleShows {
  let shows = scale.step(0)
  for (let t = 0; t < seconds; t += 0.2) shows = scale.step(0.2)
  return shows
}

it('a scale settles on what lies on it, is zeroed, and says nothing stable while something flows', () => {
  const scale = new ScaleModel(BENCH_SCALE, diceOf(7))
  scale.add(236)
  expect(scale.step(0.2).stable).toBe(false)
  expect(run(scale, 4)).toEqual({ massG: 236, stable: true, tare: false, overload: false })
  scale.tare()
  expect(run(scale, 2)).toMatchObject({ massG: 0, stable: true, tare: true })
  scale.add(500, 4)
  const during = run(scale, 2)
  expect(during.stable).toBe(false)
  expect(during.massG).toBeGreaterThan(100)
  expect(during.massG).toBeLessThan(400)
  const after = run(scale, 6)
  expect(after).toMatchObject({ stable: true, tare: true })
  // Drift and noise stay within a division here.
  expect(Math.abs(after.massG! - 500)).toBeLessThanOrEqual(1)
})

it('a scale is zeroed when it stands still, not before; with nothing on it, it is not', () => {
  const scale = new ScaleModel(BENCH_SCALE, diceOf(7))
  scale.tare()
  expect(run(scale, 2)).toMatchObject({ massG: 0, stable: true, tare: false })
  scale.add(236)
  scale.tare()
  expect(run(scale, 4)).toMatchObject({ massG: 0, stable: true, tare: true })
  scale.clear()
  expect(run(scale, 4)).toMatchObject({ massG: -236, stable: true })
})

it('a scale says that it is overloaded, and forgets it when the load goes', () => {
  const scale = new ScaleModel(BENCH_SCALE, diceOf(7))
  scale.add(6000)
  expect(run(scale, 4)).toMatchObject({ massG: null, overload: true, stable: false })
  scale.clear()
  expect(run(scale, 5)).toMatchObject({ massG: 0, overload: false, stable: true })
})

it('in a draught no reading is stable for long', () => {
  const scale = new ScaleModel(BENCH_SCALE, diceOf(3))
  scale.add(1000)
  run(scale, 4)
  scale.draughty = true
  const stable = Array.from({ length: 100 }, () => scale.step(0.2)).filter((s) => s.stable)
  expect(stable.length).toBeLessThan(10)
})

it('a probe lags behind a piece that warms as the setting model has it, and comes back to the room', () => {
  const roomC = 20
  const piece = new SettingPiece('pottery', 70, roomC, roomC)
  const probe = new ProbeModel({ ...PROBE, noiseC: 0 }, roomC, diceOf(1))
  probe.piece = piece
  let hottestC = roomC
  let hottestMin = 0
  let behindC = 0
  for (let t = 330; t < 11 * 3600; t += 1) {
    const shownC = probe.step(1)!
    behindC = Math.max(behindC, piece.tempC - shownC)
    if (piece.tempC > hottestC) [hottestC, hottestMin] = [piece.tempC, t / 60]
  }
  // Adiabatic, pottery plaster at 70 rises 37 K (heat of hydration after Kelley, Southard and Anderson 1941, from
  // memory); losing warmth it stays below, and is hottest about when it is half through and later.
  expect(hottestC - roomC).toBeGreaterThan(15)
  expect(hottestC - roomC).toBeLessThan(37)
  expect(hottestMin).toBeGreaterThan(28)
  expect(hottestMin).toBeLessThan(60)
  expect(behindC).toBeGreaterThan(0.05)
  expect(behindC).toBeLessThan(1)
  expect(probe.step(1)).toBeCloseTo(roomC, 0)
  probe.dead = true
  expect(probe.step(1)).toBeNull()
})
