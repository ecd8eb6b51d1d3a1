import { fileURLToPath } from 'node:url'
import { expect, it } from 'vitest'
import { checkLayers, componentsOf, findCycle, importsOf, judge } from '../../scripts/layers'

it('no import goes against the arrows, and there is no ring', () => {
  const { faults, files } = checkLayers(fileURLToPath(new URL('../..', import.meta.url)))
  expect(files).toBeGreaterThan(80)
  expect(faults).toEqual([])
})

it('would notice', () => {
  expect(importsOf(`import { a } from '../server/x'\nconst B = () => import('~/b.vue')`)).toEqual([
    '../server/x',
    '~/b.vue',
  ])
  expect(judge('core/mix/batch.ts', 'app/parts/show/time')).toContain('may not import')
  expect(judge('server/services/pours/pours.ts', 'app/stores/pours')).toContain('may not import')
  expect(judge('core/pour/view.ts', 'core/setting/rate')).toContain('past its index')
  expect(judge('app/parts/show/time.ts', 'app/run/useRun')).toContain('upwards')
  expect(judge('app/stores/pours.ts', 'app/parts/show/useUnits')).toContain('upwards')
  expect(judge('app/run/RunRoom.vue', 'app/plan/planDraft')).toContain('from one room into another')
  expect(judge('server/api/bags/index.get.ts', 'server/db/client')).toContain('past its workshop')
  expect(componentsOf('<RingSign /> <div> <RunPool\n :a="b">')).toEqual(['RingSign', 'RunPool'])
  expect(judge('core/pour/view.ts', 'core/setting')).toBeUndefined()
  expect(
    findCycle(
      new Map([
        ['a', ['b']],
        ['b', ['c']],
        ['c', ['a']],
      ]),
    ),
  ).toEqual(['a', 'b', 'c', 'a'])
})
