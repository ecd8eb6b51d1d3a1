import { randomUUID } from 'node:crypto'
import { planMould, type PourPlan } from '../../core/pour'
import { propertiesOfCard } from '../../core/stock'
import type { PlaceInput } from '../../shared/learning'
import { planSchema } from '../../shared/plans'
import type { BagInput, BowlInput } from '../../shared/stock'
import { DEMO_MOULDS, type DemoMouldKey } from './moulds'
import { DEMO_PLASTERS, type DemoPlasterKey } from './plasters'

/** What stands in the shed, and how it plans. */

/** Places of the shed to dry in. */
export const DEMO_PLACES = {
  rack: {
    name: 'Rack by the window',
    kind: 'still',
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
    nightAir: null,
  },
  stove: {
    name: 'Shelf over the stove',
    kind: 'breeze',
    air: { tempC: 30, rhPct: 35, speedMS: 0.5 },
    nightAir: null,
  },
  loft: {
    name: 'Loft, shutters open',
    kind: 'outdoors',
    air: { tempC: 17, rhPct: 60, speedMS: 0.8 },
    nightAir: { tempC: 8, rhPct: 88, speedMS: 0.5 },
  },
} satisfies Record<string, PlaceInput>
export type PlaceIds = Record<keyof typeof DEMO_PLACES, string>

/** Devices of the shed, by the names that their stand-ins give (devices/main.ts). */
export const DEMO_DEVICES = [
  { id: 'shed-scale', name: 'Bench scale' },
  { id: 'shed-floor-scale', name: 'Floor scale' },
  { id: 'shed-thermometer', name: 'Thermometer' },
  { id: 'shed-button', name: 'Elbow button' },
] as const

interface DemoBag extends Pick<BagInput, 'name' | 'boughtG' | 'price' | 'keeping' | 'scoop'> {
  openDays: number
  /** How its spoonfuls took against the card, with how many days ago. */
  spoonTests: [daysAgo: number, ratio: number][]
}

/** One bag of each but the shell mix, which is blended as it is needed. */
export const DEMO_BAGS: Partial<Record<DemoPlasterKey, DemoBag>> = {
  pottery: {
    name: 'Sack of spring',
    boughtG: 25_000,
    price: 21,
    openDays: 190,
    keeping: 'dry_open',
    scoop: { measureMl: 500, packing: 'scooped', weighedKgM3: 880 },
    spoonTests: [
      [12, 1.18],
      [40, 1.12],
    ],
  },
  moulding: {
    name: 'Bag by the door',
    boughtG: 10_000,
    price: 13.5,
    openDays: 60,
    keeping: 'damp',
    scoop: null,
    spoonTests: [],
  },
  cement: {
    name: 'Tub 2',
    boughtG: 20_000,
    price: 38,
    openDays: 35,
    keeping: 'sealed',
    scoop: null,
    spoonTests: [],
  },
  hard: {
    name: 'Red tub',
    boughtG: 5_000,
    price: 17,
    openDays: 80,
    keeping: 'sealed',
    scoop: null,
    spoonTests: [[30, 0.97]],
  },
}

export const DEMO_BOWLS: (BowlInput & { bowlId: string })[] = [
  { bowlId: randomUUID(), name: 'Rubber bowl', volumeMl: 700, tareG: 118 },
  { bowlId: randomUUID(), name: 'Blue basin', volumeMl: 4000, tareG: 236 },
  { bowlId: randomUUID(), name: 'Black bucket', volumeMl: 10_000, tareG: 512 },
]
export const [RUBBER_BOWL, BLUE_BASIN] = DEMO_BOWLS
/** All out of one bowl, or as many as it takes of it. */
export const mixedIn = (bowl = BLUE_BASIN!): PourPlan['batching'] => ({
  split: { by: 'need' },
  bowl,
  pourRateMlMin: null,
  scaleCapacityG: 5000,
})

/** Bowls that follow one another, each named by its layer. */
export const inLayers = (...layers: [name: string, sharePct: number][]): PourPlan['batching'] => ({
  split: { by: 'layers', layers: layers.map(([name, sharePct]) => ({ name, sharePct })) },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: 5000,
})

export type MouldIds = Record<DemoMouldKey, string>
export type PlasterIds = Record<DemoPlasterKey, string>
export type BagIds = Partial<Record<DemoPlasterKey, string>>
export interface Ids extends Stock {
  placeIds: PlaceIds
}
export interface Stock {
  plasterIds: PlasterIds
  bagIds: BagIds
}
export type MakePlan = (piece: string, mouldKey: DemoMouldKey, change?: Partial<PourPlan>) => PourPlan

/** What the shed would plan by itself, and what is otherwise in this pour. */
export function plan(
  ids: MouldIds,
  { plasterIds, bagIds, placeIds }: Ids,
  piece: string,
  mouldKey: DemoMouldKey,
  change: Partial<PourPlan> = {},
): PourPlan {
  const { plaster: plasterKey, ...described } = DEMO_MOULDS[mouldKey]
  const { name, label: said } = DEMO_PLASTERS[plasterKey]
  const properties = propertiesOfCard(said)
  const bag = DEMO_BAGS[plasterKey]
  const bagId = bagIds[plasterKey]
  return planSchema.parse({
    schemaVersion: 2,
    piece,
    mould: planMould([{ ...described, mouldId: ids[mouldKey], count: 1 }]),
    plaster: {
      name,
      plasterId: plasterIds[plasterKey],
      properties,
      ...(bag && bagId ? { bag: { bagId, name: bag.name, boughtG: bag.boughtG, price: bag.price } } : {}),
    },
    consistency: properties.useConsistency,
    ratioMethod: 'weighed',
    sparePct: 8,
    airFraction: 0.01,
    waterTempC: 16,
    powderTempC: 18,
    soakS: 120,
    stirS: 120,
    stirManner: 'hand',
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
    dryingPlace: {
      placeId: placeIds.rack,
      name: DEMO_PLACES.rack.name,
      air: DEMO_PLACES.rack.air,
    },
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    scaleDivisionG: 1,
    ...change,
  })
}
