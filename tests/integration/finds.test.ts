import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { firstPrint, remeasured } from '../../app/parts/field/derive'
import { getMould, putMould } from '../../server/services/shelf/moulds'
import { lastEnded } from '../../server/services/pours/pourRecords'
import { createPour } from '../../server/services/pours/pours'
import { keepPlan } from '../../core/pour'
import { mouldPutSchema } from '../../shared/moulds'
import { createTestDatabase, type TestDatabase } from '../support/database'
import { testPlan } from '../unit/plans'
import { MouldImport, exportMoulds } from '../../server/services/shelf/mouldBundle'
import type { MouldBundle } from '../../shared/moulds'

let database: TestDatabase
beforeAll(async () => (database = await createTestDatabase()))
afterAll(() => database?.drop())

const pixel = (x: number, y: number) => ({ x, y })
const shot = {
  photoId: randomUUID(),
  widthPx: 2400,
  heightPx: 1800,
  scale: {
    by: 'rule' as const,
    marks: [pixel(0, 0), pixel(800, 0)] as [ReturnType<typeof pixel>, ReturnType<typeof pixel>],
    lengthMm: 100,
  },
  tiltDeg: null,
  cameraHeightMm: null,
  marks: [{ kind: 'length' as const, name: '', points: [pixel(0, 9), pixel(400, 9)], belowMm: 0 }],
  outline: { points: [pixel(0, 0), pixel(800, 0), pixel(800, 400), pixel(0, 400)], belowMm: 0 },
}
const find = {
  foundAtMs: 1_764_000_000_000,
  place: 'by the weir',
  position: { latDeg: 54.12, lonDeg: -3.65, withinM: 1000 as const },
  ground: 'mud' as const,
  weather: '',
  light: '',
  depthsMm: [],
  shots: [],
  casts: [],
}

it('a print is kept with where it was found and what was measured, and who knows of no finds leaves it so', async () => {
  const { db } = database
  const id = randomUUID()
  const first = firstPrint({ name: 'Heron', find, lengthMm: 100, widthMm: 50, depthMm: 12 })
  expect((await putMould(db, id, null, first)).find).toEqual(find)
  const measured = remeasured(first, { ...find, shots: [shot], depthsMm: [10, 12, 14] })
  const sent = mouldPutSchema.parse({ revision: 1, mould: JSON.parse(JSON.stringify(measured)) })
  const card = await putMould(db, id, 1, sent.mould)
  // 100 × 50 mm by the rule, 12 mm deep on average; its ring goes round its diagonal and what lies across it.
  expect(card.volume.parts[0]!.method).toMatchObject({
    by: 'traced',
    areaMm2: 5000,
    meanDepthMm: 12,
    coverMm: 25,
  })
  const [long, wide] = [Math.hypot(100, 50), 5000 / (Math.hypot(100, 50) / 2)]
  expect(card.cavityMl).toBeCloseTo((60 + (Math.PI / 4) * (long + 40) * (wide + 40) * 0.025) * 1.12, 0)
  const { find: _, ...yesterdays } = sent.mould
  await putMould(db, id, 2, { ...yesterdays, note: 'from an older telephone' })
  const now = await getMould(db, id)
  expect(now.note).toBe('from an older telephone')
  expect(now.find).toEqual(measured.find)
  // The same again, its answer lost on the way.
  expect((await putMould(db, id, 2, { ...yesterdays, note: 'from an older telephone' })).revision).toBe(3)
})

it.each([
  [
    'three points for a length',
    { shots: [{ ...shot, marks: [{ ...shot.marks[0], points: [pixel(0, 0)] }] }] },
  ],
  ['a rule without a length', { shots: [{ ...shot, scale: { ...shot.scale, lengthMm: 0 } }] }],
  ['a position of another grid', { position: { latDeg: 345_678, lonDeg: 3, withinM: 10 } }],
  ['a position finer than is kept', { position: { latDeg: 54, lonDeg: 3, withinM: 1 } }],
  ['a depth of nothing', { depthsMm: [0] }],
  ['more photographs than fit', { shots: Array.from({ length: 13 }, () => shot) }],
])('%s is refused', (_, said) => {
  const mould = firstPrint({
    name: 'x',
    find: { ...find, ...said } as never,
    lengthMm: 90,
    widthMm: 70,
    depthMm: 15,
  })
  expect(mouldPutSchema.safeParse({ revision: null, mould }).success).toBe(false)
})

it('a pour begun out of reach keeps its own time, and never one that lies ahead', async () => {
  const { db } = database
  const plan = keepPlan(testPlan())
  const yesterdayMs = Date.now() - 86_400_000
  expect((await createPour(db, randomUUID(), plan, yesterdayMs)).createdAtMs).toBe(yesterdayMs)
  const ahead = await createPour(db, randomUUID(), plan, Date.now() + 3 * 3_600_000)
  expect(ahead.createdAtMs).toBeLessThanOrEqual(Date.now() + 1000)
  expect(await lastEnded(db, 50)).toEqual([])
})

it('a shelf’s file holds nothing of where a print lies unless that is wished, and read in again it is the same', async () => {
  const { db } = database
  const id = randomUUID()
  await putMould(db, id, null, firstPrint({ name: 'Otter', find, lengthMm: 90, widthMm: 60, depthMm: 10 }))
  const fileOf = async (withPlaces: boolean) => {
    let text = ''
    for await (const piece of exportMoulds(db, withPlaces)) text += piece
    return (JSON.parse(text) as MouldBundle).moulds.find((m) => m.id === id)!
  }
  expect((await fileOf(true)).find).toMatchObject({ place: 'by the weir', position: { withinM: 1000 } })
  const shared = await fileOf(false)
  expect(shared.find).toEqual({ ...find, place: '', position: null })
  const back = new MouldImport(db)
  await back.addMould(shared)
  expect(back.outcome).toMatchObject({ same: 1, kept: [] })
  await back.addMould({ ...shared, name: 'Otter, another' })
  expect(back.outcome.kept).toEqual(['Otter'])
})
