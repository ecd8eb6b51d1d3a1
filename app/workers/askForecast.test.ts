import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { problemOf } from '#core/pour'
import { fold, testPlan, wholeRun } from '../../tests/unit/plans'
import type { ForecastJob } from './forecastJob'

const facts = fold(testPlan(), wholeRun().slice(0, 9))
const problem = problemOf(facts, facts.inHand)
const ask = { kind: 'curve', problem, pace: { meanLn: 0, sigmaLn: 0.1 }, untilS: 600 } as const

/** A worker whose file is gone, or one that answers nothing but errors. */
class BrokenWorker {
  static started = 0
  static how: 'gone' | 'errors' = 'gone'
  onmessage?: (event: { data: object }) => void
  onerror?: (event: { message: string; preventDefault: () => void }) => void
  constructor() {
    BrokenWorker.started++
  }
  postMessage({ id, key }: ForecastJob) {
    queueMicrotask(() =>
      BrokenWorker.how === 'gone'
        ? this.onerror!({ message: 'not found', preventDefault: () => {} })
        : this.onmessage!({ data: { id, key, error: 'no such ask' } }),
    )
  }
  terminate() {}
}

beforeEach(() => {
  vi.resetModules()
  BrokenWorker.started = 0
  vi.stubGlobal('Worker', BrokenWorker)
  vi.spyOn(console, 'error').mockImplementation(() => {})
})
afterEach(() => vi.restoreAllMocks())

it('a worker that does not start is done without, said, and tried again after a while', async () => {
  BrokenWorker.how = 'gone'
  const { askForecast, isWithoutWorker } = await import('./askForecast')
  const curves: number[] = []
  const asked = (key: string) => askForecast(key, ask, (curve) => curves.push(curve.timeS.length))
  asked('one')
  await vi.waitFor(() => expect(curves).toHaveLength(1))
  expect(isWithoutWorker.value).toBe(true)
  asked('two')
  await vi.waitFor(() => expect(curves).toHaveLength(2))
  expect(BrokenWorker.started).toBe(1)
  vi.spyOn(performance, 'now').mockReturnValue(performance.now() + 61_000)
  asked('three')
  await vi.waitFor(() => expect(curves).toHaveLength(3))
  expect(BrokenWorker.started).toBe(2)
})

it('whoever asked what cannot be made hears that there is no answer', async () => {
  BrokenWorker.how = 'errors'
  const { askForecast } = await import('./askForecast')
  const [then, failed] = [vi.fn(), vi.fn()]
  askForecast('one', ask, then, failed)
  await vi.waitFor(() => expect(failed).toHaveBeenCalledOnce())
  expect(then).not.toHaveBeenCalled()
})
