import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { MODEL_VERSION } from '../../core/pour'
import { MODEL_FIGURES_FILE, modelFigures, type KeptFigures } from '../support/modelFigures'

/**
 * Whether the figures are right the other tests say, against sources of their own. This says that they moved: none of them
 * does so unseen, and what a plan comes to only under a new number.
 */
it('figures of the models move only where that is meant: npx tsx scripts/modelFigures.ts writes them down anew', () => {
  const { modelVersion, jobs } = JSON.parse(readFileSync(MODEL_FIGURES_FILE, 'utf8')) as KeptFigures
  expect(modelVersion).toBe(MODEL_VERSION)
  const now = modelFigures()
  const moved = Object.keys(now).flatMap((name) =>
    Object.keys(now[name]!)
      .filter((asked) => now[name]![asked] !== jobs[name]?.[asked])
      .map((asked) => `${name}: ${asked}`),
  )
  expect(moved).toEqual([])
  expect(Object.keys(jobs)).toEqual(Object.keys(now))
})
