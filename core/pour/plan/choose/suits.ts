import type { MixProperties } from '../../../mix'
import type { Purpose } from '../../../mould'
import { plasterClass, type PlasterClassId } from '../../../plaster'
import type { Range } from '../../../provenance'
import type { PourPlan } from '../plan'
import { KILN_SILICA_RATIO, silicaRatioOf } from '../mix/uses'

export type SuitsCode =
  | 'suits'
  | 'drinks_too_little'
  | 'wears_quickly'
  | 'pores_sealed'
  | 'too_weak'
  | 'grows_too_much'
  | 'not_for_the_mouth'
  | 'below_dental_strength'
  | 'impression_plaster_only'
  | 'expanding_stone'
  | 'needs_silica'
  | 'silica_not_needed'
  | 'too_strong_to_break'
  | 'binder_will_not_break'
  | 'too_hard_to_mark'
  | 'binder_will_not_mark'
  | 'silica_in_the_hand'

/** Whether a mix does what its piece is for, and what would do it better. Common practice, no source. */
export interface Suitability {
  purpose: Purpose
  code: SuitsCode
  grade: 'good' | 'fair' | 'poor'
  better: { classId: PlasterClassId; consistency: number } | undefined
}

interface Mix {
  classId: PlasterClassId
  porosity: number
  dryMPa: number
  wetOneHourMPa: number
  expansionPct: number
  silicaRatio: number
  has: (id: string) => boolean
}

type Verdict = [code: SuitsCode, grade: 'fair' | 'poor', better: PlasterClassId, consistency?: number]

/** Dry strength at which a hand piece keeps its edges, and a print its first cleaning, MPa. */
const FIRM_MPA = 12
/** A potter's mould drinks well from about this pore fraction on, and is soft above the other. */
const THIRSTY = 0.5
const SOFT = 0.59

function judgePotters(m: Mix): Verdict | undefined {
  if (m.has('acrylic')) return ['pores_sealed', 'poor', 'pottery']
  if (m.silicaRatio > KILN_SILICA_RATIO) return ['silica_not_needed', 'fair', 'pottery']
  if (m.porosity < THIRSTY)
    return ['drinks_too_little', m.porosity < THIRSTY - 0.05 ? 'poor' : 'fair', 'pottery']
  return m.porosity > SOFT ? ['wears_quickly', 'fair', 'pottery'] : undefined
}

function judgeFirm(m: Mix, better: PlasterClassId): Verdict | undefined {
  return m.dryMPa < FIRM_MPA ? ['too_weak', m.dryMPa < 0.6 * FIRM_MPA ? 'poor' : 'fair', better] : undefined
}

/**
 * ISO 6873, gypsum for dental use: least compressive strength at 1 h, MPa, and linear setting expansion at 2 h, %, by
 * type (ed. 1998 and 2013, both from memory). Type 1 takes impressions and may be no stronger than 8. Where the editions
 * differ the wider one judges: type 4 may grow by .15 % in that of 1998 and by .18 in the later.
 */
export const ISO_6873 = {
  1: { minMPa: 4, maxMPa: 8, minPct: 0, maxPct: 0.15 },
  2: { minMPa: 9, maxMPa: Infinity, minPct: 0, maxPct: 0.3 },
  3: { minMPa: 20, maxMPa: Infinity, minPct: 0, maxPct: 0.2 },
  4: { minMPa: 35, maxMPa: Infinity, minPct: 0, maxPct: 0.18 },
  5: { minMPa: 35, maxMPa: Infinity, minPct: 0.16, maxPct: 0.3 },
} as const

const DENTAL_TYPE: Partial<Record<PlasterClassId, keyof typeof ISO_6873>> = {
  dental2: 2,
  dental3: 3,
  dental4: 4,
}

/** The class that meets a type's limits where another does not. */
function judgeDental({ classId, wetOneHourMPa, expansionPct }: Mix): Verdict | undefined {
  const type = DENTAL_TYPE[classId]
  if (type === undefined) return ['not_for_the_mouth', 'poor', 'dental3']
  const meets = (limits: (typeof ISO_6873)[keyof typeof ISO_6873]) =>
    wetOneHourMPa >= limits.minMPa &&
    wetOneHourMPa <= limits.maxMPa &&
    expansionPct >= limits.minPct &&
    expansionPct <= limits.maxPct
  if (meets(ISO_6873[type])) return undefined
  const next = type === 2 ? 'dental3' : 'dental4'
  if (type === 2 && meets(ISO_6873[1])) return ['impression_plaster_only', 'poor', 'dental2']
  if (type === 4 && meets(ISO_6873[5])) return ['expanding_stone', 'fair', 'dental4']
  return wetOneHourMPa < ISO_6873[type].minMPa
    ? ['below_dental_strength', 'poor', next]
    : ['grows_too_much', 'fair', next]
}

const JUDGES: Record<Purpose, (m: Mix) => Verdict | undefined> = {
  slip_mould: judgePotters,
  slab: judgePotters,
  figure: (m) => judgeFirm(m, 'gc'),
  print: (m) => judgeFirm(m, 'gc'),
  tile: (m) => (m.expansionPct > 0.3 ? ['grows_too_much', 'fair', 'hsgc'] : judgeFirm(m, 'hsgc')),
  mother_mould: (m) => (m.expansionPct > 0.3 ? ['grows_too_much', 'fair', 'pop', 60] : judgeFirm(m, 'pop')),
  dental: judgeDental,
  shell: (m) => (m.silicaRatio < 0.8 ? ['needs_silica', 'poor', 'investment'] : undefined),
  prop: (m) => {
    if (m.has('acrylic') || m.has('fibre')) return ['binder_will_not_break', 'poor', 'pop', 95]
    return m.dryMPa > FIRM_MPA
      ? ['too_strong_to_break', m.dryMPa > 25 ? 'poor' : 'fair', 'pop', 95]
      : undefined
  },
  chalk: (m) => {
    // It wears to dust in a hand, often a child's.
    if (m.silicaRatio > 0) return ['silica_in_the_hand', 'poor', 'pop', 95]
    if (m.has('acrylic') || m.has('fibre')) return ['binder_will_not_mark', 'poor', 'pop', 95]
    return m.dryMPa > FIRM_MPA ? ['too_hard_to_mark', m.dryMPa > 25 ? 'poor' : 'fair', 'pop', 95] : undefined
  },
}

/** One verdict for each purpose among the plan's moulds; none where no mould says what it is for. */
export function suitabilityOf(
  plan: PourPlan,
  mix: MixProperties,
  strength: { dry: Range; wetOneHour: Range },
): Suitability[] {
  const { properties, additions = [] } = plan.plaster
  const pctOf = (id: string) => additions.find((a) => a.id === id)?.pct ?? 0
  const known: Mix = {
    classId: properties.classId,
    porosity: mix.porosity,
    dryMPa: strength.dry.mid,
    wetOneHourMPa: strength.wetOneHour.mid,
    expansionPct: properties.expansionPct,
    silicaRatio: silicaRatioOf(plan),
    has: (id) => pctOf(id) > 0,
  }
  const purposes = [...new Set((plan.mould.members ?? []).map((m) => m.purpose))]
  return purposes.map((purpose) => {
    const verdict = JUDGES[purpose](known)
    if (!verdict) return { purpose, code: 'suits', grade: 'good', better: undefined }
    const [code, grade, classId, consistency] = verdict
    return {
      purpose,
      code,
      grade,
      better: { classId, consistency: consistency ?? plasterClass(classId).consistency.value },
    }
  })
}
