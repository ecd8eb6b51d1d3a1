/**
 * Writes down anew what the models say of many jobs: `npx tsx scripts/modelFigures.ts`. With a file's name it writes the
 * figures themselves there, in full, to be laid beside those of another day.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { MODEL_VERSION } from '../core/pour'
import {
  MODEL_FIGURES_FILE,
  modelFigures,
  writeFigures,
  type KeptFigures,
} from '../tests/support/modelFigures'

const [fullTo] = process.argv.slice(2)
if (fullTo) {
  writeFileSync(fullTo, JSON.stringify(modelFigures(true), null, 1))
} else {
  const jobs = modelFigures() as KeptFigures['jobs']
  if (existsSync(MODEL_FIGURES_FILE)) {
    const before = JSON.parse(readFileSync(MODEL_FIGURES_FILE, 'utf8')) as KeptFigures
    const other = Object.keys(jobs).filter(
      (name) => before.jobs[name] && before.jobs[name].keepPlan !== jobs[name]!.keepPlan,
    )
    if (other.length > 0 && before.modelVersion === MODEL_VERSION) {
      console.error(
        `What a plan comes to is otherwise in ${other.length} jobs, ${other[0]} among them: raise MODEL_VERSION in ` +
          `core/pour/plan/kept.ts. Where the jobs themselves were changed, delete ${MODEL_FIGURES_FILE} first.`,
      )
      process.exit(1)
    }
  }
  writeFigures({ modelVersion: MODEL_VERSION, jobs })
}
