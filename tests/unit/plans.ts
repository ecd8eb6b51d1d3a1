import { plasterProperties, type PlasterClassId } from '../../core/plaster'
import { usualFacts } from '../../core/mould'
import {
  outlookFrom,
  keepPlan,
  type EventBody,
  type PourEvent,
  type PlanMember,
  type PourOutlook,
  type PourPlan,
} from '../../core/pour'
import type { Settings } from '../../shared/contracts'

/** A plain plan to start from in tests: a one-litre silicone mould. */
export function testPlan(classId: PlasterClassId = 'pottery', change: Partial<PourPlan> = {}): PourPlan {
  const properties = plasterProperties(classId)
  return {
    schemaVersion: 2,
    piece: 'A test piece',
    mould: {
      name: 'A test mould',
      kind: 'silicone',
      cavityMl: 1000,
      volumeProvenance: { kind: 'measured' },
      thicknessMm: 25,
    },
    plaster: { name: 'A test plaster', properties },
    consistency: properties.useConsistency,
    ratioMethod: 'weighed',
    sparePct: 10,
    airFraction: 0.01,
    waterTempC: 20,
    powderTempC: 20,
    soakS: 120,
    stirS: 120,
    stirManner: 'hand',
    air: { tempC: 20, rhPct: 50, speedMS: 0.1 },
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    scaleDivisionG: 1,
    ...change,
  }
}

/** Tiles of 100 ml with lettering, so many to a bowl. */
export function tilesPlan(count: number, castsPerBag: number): PourPlan {
  const tile: PlanMember = {
    mouldId: null,
    name: 'Tile',
    count,
    cavityMl: count * 100,
    purpose: 'tile',
    thinnestMm: null,
    facts: { ...usualFacts('silicone'), airTraps: ['lettering'] },
    volume: {
      parts: [{ role: 'add', count: 1, method: { by: 'known', volumeMl: 100, plusMinusPct: 5 } }],
      cavities: 1,
      check: null,
      trust: 'parts',
    },
  }
  return testPlan('pottery', {
    mould: { ...testPlan().mould, cavityMl: count * 100, members: [tile] },
    batching: {
      split: { by: 'casts', castsPerBag },
      bowl: null,
      pourRateMlMin: null,
      scaleCapacityG: null,
    },
  })
}

/** Taken to the bench, then folded. */
export function fold(plan: PourPlan, events: readonly PourEvent[], revision?: number): PourOutlook {
  return outlookFrom(keepPlan(plan), events, revision)
}

/** A workshop's settings, as far as plans go by them. */
export const TEST_SETTINGS: Settings = {
  workshopName: 'Test shed',
  system: 'metric',
  scaleDivisionG: 1,
  roomTempC: 18,
  roomRhPct: 55,
  airSpeedMS: 0.1,
  tapTempC: 16,
  hotTapTempC: 50,
  scaleCapacityG: null,
  currency: '€',
  decimalSign: null,
  kitchen: null,
  scoopMl: null,
}

let made = 0
export function eventAt(occurredAtMs: number, body: EventBody): PourEvent {
  made += 1
  return { id: `00000000-0000-4000-8000-${String(made).padStart(12, '0')}`, occurredAtMs, who: 'test', body }
}

/** One whole pour at the planned pace, from the mould to the finished piece; times in ms from 0. */
export function wholeRun(): PourEvent[] {
  const MIN = 60_000
  const steps: [atMin: number, body: EventBody][] = [
    [0, { type: 'mould_ready' }],
    [2, { type: 'weighed', what: 'water', massG: 706 }],
    [4, { type: 'weighed', what: 'powder', massG: 1009 }],
    [5, { type: 'sift_started' }],
    [6, { type: 'sifted' }],
    [8, { type: 'soaked' }],
    [10, { type: 'stirred', manner: 'hand' }],
    [11, { type: 'poured' }],
    [12, { type: 'tapped' }],
    [90, { type: 'demoulded', outcome: 'whole' }],
    [91, { type: 'weighing', massG: 1560 }],
    [91 + 1440, { type: 'weighing', massG: 1450 }],
    [91 + 8640, { type: 'finished', verdict: 'good', reason: '' }],
  ]
  return steps.map(([atMin, body]) => eventAt(atMin * MIN, body))
}
