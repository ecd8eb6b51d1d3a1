import type { CavityDescription } from './describe'
import {
  containerVolumeMl,
  coveredAreaMm2,
  objectVolumeMl,
  shellVolumeMm3,
  type Displacement,
  type LayerBelow,
  type Shell,
} from './ways'

/** What some ways of moulding ask for besides plaster: gel for an impression, coats for a shell, a key for a layer. */

export interface GelPlan {
  gelMl: number
  waterMl: number
  /** Gel that this water makes, ml: some find the powder adds nothing, others up to a quarter (common practice). */
  makesMl: { low: number; high: number }
  /** By volume where the gel is mixed 1 : 1; by weight where its label gives grams. */
  powder: { volumeMl: number } | { massG: number }
  workS: number
  /** Leave it in this long, though it feels set at `feelsSetS` (common practice, no source). */
  waitS: { low: number; high: number }
  feelsSetS: { low: number; high: number }
}

/** Times its water that a gel may come to (common practice, no source). */
const GEL_AT_MOST = 1.25

/**
 * Gel for an impression: the container to its fill line less the object. The water to take is the gel wanted, so that
 * it is never too little: what the powder adds, if anything, stands over.
 */
export function gelPlan(m: Displacement): GelPlan {
  const gelMl = Math.max(0, containerVolumeMl(m) - objectVolumeMl(m))
  return {
    gelMl,
    waterMl: gelMl,
    makesMl: { low: gelMl, high: GEL_AT_MOST * gelMl },
    powder:
      m.gelRatio === 'by_volume' ? { volumeMl: gelMl } : { massG: (gelMl * m.gelPowderGPer100Ml) / 100 },
    workS: m.gelWorkMin * 60,
    waitS: { low: 15 * 60, high: 20 * 60 },
    feelsSetS: { low: 5 * 60, high: 7 * 60 },
  }
}

export interface ShellPlan {
  layers: number
  layerMm: number
  /** Bowls of slurry in all; a bowl is never stretched over two layers. */
  batches: number
  /** Even to a fifth: nowhere thinner or thicker than this, mm. */
  thinnestMm: number
  thickestMm: number
  /** The trade's rule: about 10 l of water for each m² at 12 mm; one US quart a square foot at half an inch. */
  ruleWaterMl: number
  /** What the geometry's own volume takes at this mix. */
  geometryWaterMl: number
}

/** Water for a square metre of coat 12 mm thick, ml (common practice, no source). */
const AREA_RULE_ML_M2 = 10_000
const AREA_RULE_MM = 12

const layersOfShell = (m: Shell) => Math.max(1, Math.ceil(m.thicknessMm / m.layerMm - 1e-9))

/** Layers in which a cavity is built up: those of its thickest shell, or one pour. */
export function layersOf(volume: CavityDescription): number {
  return Math.max(1, ...volume.parts.map(({ method }) => (method.by === 'shell' ? layersOfShell(method) : 1)))
}

/** @param waterPerSlurry water in a volume of slurry, 0–1, of the mix that will be used. */
export function shellPlan(m: Shell, waterPerSlurry: number): ShellPlan {
  const layers = layersOfShell(m)
  const volumeMl = shellVolumeMm3(m) / 1000
  return {
    layers,
    layerMm: m.thicknessMm / layers,
    batches: layers * Math.max(1, Math.ceil(volumeMl / layers / m.batchMl - 1e-9)),
    thinnestMm: 0.8 * m.thicknessMm,
    thickestMm: 1.2 * m.thicknessMm,
    ruleWaterMl: (coveredAreaMm2(m) / 1e6) * AREA_RULE_ML_M2 * (m.thicknessMm / AREA_RULE_MM),
    geometryWaterMl: volumeMl * waterPerSlurry,
  }
}

export type KeyingStep = 'pour_on_now' | 'scrape_back' | 'score' | 'wet_the_set_layer' | 'bonding_coat'

/** How a second layer is made to hold on the one below (common practice, no source). */
export function keyingOf(below: LayerBelow): KeyingStep[] {
  switch (below) {
    case 'still_soft':
      return ['scrape_back', 'pour_on_now']
    case 'set_today':
      return ['score', 'bonding_coat']
    case 'dry':
      return ['score', 'wet_the_set_layer', 'bonding_coat']
  }
}
