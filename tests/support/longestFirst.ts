import { basename } from 'node:path'
import { BaseSequencer, type TestSpecification } from 'vitest/node'

/** Files that mostly wait, for what they start and kill: begun last, the others would have nothing left to do beside them. */
const LONGEST = ['startBackup', 'startScript', 'startState', 'bundle', 'kill', 'replica', 'processes']

export default class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification) => {
      const at = LONGEST.indexOf(basename(moduleId, '.test.ts'))
      return at < 0 ? LONGEST.length : at
    }
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b))
  }
}
