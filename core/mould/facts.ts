import type { FieldGround } from '../field'
import type { PlasterClassId } from '../plaster'
import type { Range } from '../provenance'
import type { MouldKind } from './kinds'
import type { CavityDescription } from './describe'
import { keyingOf } from './working'

export const MOULD_MATERIALS = [
  'silicone',
  'polyurethane',
  'latex',
  'rigid_plastic',
  'plaster',
  'wood',
  'metal',
  'wet_clay',
  'alginate',
  'impression_compound',
  'sand_soil',
  'card',
] as const
export type MouldMaterial = (typeof MOULD_MATERIALS)[number]

/** How the wall gives: not at all, a little, or freely. */
export const FLEXES = ['rigid', 'springy', 'flexible'] as const
export type Flex = (typeof FLEXES)[number]

export const BUILDS = ['one_piece', 'parts', 'cut_open'] as const
export type Build = (typeof BUILDS)[number]

export const SUPPORTS = ['none', 'mother_mould', 'box', 'sand_bed'] as const
export type Support = (typeof SUPPORTS)[number]

export const UNDERCUTS = ['none', 'slight', 'deep'] as const
export type UndercutDepth = (typeof UNDERCUTS)[number]

export const OPENINGS = ['wide', 'narrow'] as const
export type Opening = (typeof OPENINGS)[number]

/** Parts of a form where air stays behind. */
export const AIR_TRAPS = [
  'deep_fingers',
  'hooks',
  'flat_ceiling',
  'lettering',
  'fine_texture',
  'vertical_faces',
] as const
export type AirTrap = (typeof AIR_TRAPS)[number]

/** What there is to know of a mould besides how much it holds. */
export interface MouldFacts {
  material: MouldMaterial
  flex: Flex
  build: Build
  /** A waste mould gives one cast and is broken away. */
  oneTime: boolean
  support: Support
  opening: Opening
  undercut: UndercutDepth
  airTraps: AirTrap[]
}

interface MaterialNature {
  flex: Flex
  oneTime: boolean
  /** Soaks up water and grips unless it is sealed. */
  porous: boolean
  /** Casts that such a mould usually gives; estimates from common practice, no source. */
  life: { low: number; high: number }
}

export const MATERIAL_NATURE: Readonly<Record<MouldMaterial, MaterialNature>> = {
  silicone: { flex: 'flexible', oneTime: false, porous: false, life: { low: 30, high: 100 } },
  polyurethane: { flex: 'flexible', oneTime: false, porous: false, life: { low: 50, high: 150 } },
  latex: { flex: 'flexible', oneTime: false, porous: false, life: { low: 25, high: 80 } },
  rigid_plastic: { flex: 'springy', oneTime: false, porous: false, life: { low: 50, high: 300 } },
  plaster: { flex: 'rigid', oneTime: false, porous: true, life: { low: 25, high: 60 } },
  wood: { flex: 'rigid', oneTime: false, porous: true, life: { low: 20, high: 100 } },
  metal: { flex: 'rigid', oneTime: false, porous: false, life: { low: 200, high: 1000 } },
  wet_clay: { flex: 'flexible', oneTime: true, porous: false, life: { low: 1, high: 1 } },
  alginate: { flex: 'flexible', oneTime: true, porous: false, life: { low: 1, high: 2 } },
  impression_compound: { flex: 'rigid', oneTime: true, porous: false, life: { low: 1, high: 2 } },
  sand_soil: { flex: 'flexible', oneTime: true, porous: true, life: { low: 1, high: 1 } },
  card: { flex: 'springy', oneTime: true, porous: true, life: { low: 1, high: 3 } },
}

/** A mould of this material as one usually meets it; the caster changes what differs. */
export function usualFacts(material: MouldMaterial): MouldFacts {
  const { flex, oneTime } = MATERIAL_NATURE[material]
  return {
    material,
    flex,
    build: 'one_piece',
    oneTime,
    support: material === 'latex' ? 'mother_mould' : 'none',
    opening: 'wide',
    undercut: 'none',
    airTraps: [],
  }
}

/** What the plaster sets against, as the demoulding rules know it. */
export function mouldKindOf(facts: MouldFacts, volume: CavityDescription): MouldKind {
  if (volume.parts[0]?.method.by === 'shell') return 'shell'
  switch (facts.material) {
    case 'silicone':
    case 'polyurethane':
      return 'silicone'
    case 'latex':
      return 'latex'
    case 'rigid_plastic':
    case 'metal':
      return 'rigid_plastic'
    case 'wood':
    case 'card':
      return 'box'
    case 'plaster':
      return facts.oneTime ? 'waste_clay' : 'plaster_piece'
    case 'wet_clay':
      return 'waste_clay'
    case 'alginate':
      return 'alginate'
    case 'impression_compound':
      return 'impression_tray'
    case 'sand_soil':
      return 'ground'
  }
}

export type ReleaseCode =
  | 'none_on_rubber'
  | 'thin_film_on_rubber'
  | 'talc_when_peeling'
  | 'thin_streak_free_film'
  | 'soap_and_seal'
  | 'seal_then_film'
  | 'none_on_clay'
  | 'none_on_gel'
  | 'none_on_compound'
  | 'none_in_ground'
  | 'modified_grabs'

/**
 * What to put between this mould and this plaster, most important first. All of it is common practice without a
 * source; the reasons are in the interface's words.
 */
export function releaseAdvice(material: MouldMaterial, plaster: PlasterClassId | undefined): ReleaseCode[] {
  const advice = ((): ReleaseCode[] => {
    switch (material) {
      case 'silicone':
        return ['none_on_rubber']
      case 'polyurethane':
        return ['thin_film_on_rubber']
      case 'latex':
        return ['talc_when_peeling']
      case 'rigid_plastic':
      case 'metal':
        return ['thin_streak_free_film']
      case 'plaster':
        return ['soap_and_seal']
      case 'wood':
      case 'card':
        return ['seal_then_film']
      case 'wet_clay':
        return ['none_on_clay']
      case 'alginate':
        return ['none_on_gel']
      case 'impression_compound':
        return ['none_on_compound']
      case 'sand_soil':
        return ['none_in_ground']
    }
  })()
  // Gypsum cements are the ones that get modified with polymers and cement.
  const cement = plaster === 'gc' || plaster === 'lowexp' || plaster === 'hsgc'
  return cement && advice[0] !== 'none_in_ground' ? [...advice, 'modified_grabs'] : advice
}

export type LetGoCode =
  | 'rigid_undercut'
  | 'undercut_breaks_out'
  | 'undercut_in_parts'
  | 'undercut_flexes'
  | 'deep_undercut_peels'
  | 'vacuum_grip'
  | 'springs_free'
  | 'cut_open_needs_keys'
  | 'lets_go'

export interface LetGo {
  code: LetGoCode
  /** `stop`: it cannot come out whole. `care`: it will, with what the words say. */
  grade: 'stop' | 'care' | 'fine'
}

/** From this depth on an undercut wants peeling, not just a pull, mm (estimate). */
const DEEP_UNDERCUT_MM = 6

/** The worse of what the caster says and what the drawn form shows. */
function undercutOf(facts: MouldFacts, drawnMm: number | undefined): UndercutDepth {
  const drawn = drawnMm === undefined || drawnMm <= 0 ? 0 : drawnMm < DEEP_UNDERCUT_MM ? 1 : 2
  return UNDERCUTS[Math.max(drawn, UNDERCUTS.indexOf(facts.undercut))]!
}

/** Whether this mould will let go of a cast, and what it takes. */
export function letsGo(facts: MouldFacts, drawnUndercutMm: number | undefined): LetGo[] {
  const undercut = undercutOf(facts, drawnUndercutMm)
  const found: LetGo[] = []
  if (undercut !== 'none') {
    if (facts.oneTime) found.push({ code: 'undercut_breaks_out', grade: 'fine' })
    else if (facts.flex === 'flexible')
      found.push(
        undercut === 'deep'
          ? { code: 'deep_undercut_peels', grade: 'care' }
          : { code: 'undercut_flexes', grade: 'fine' },
      )
    else if (facts.build !== 'one_piece') found.push({ code: 'undercut_in_parts', grade: 'care' })
    else found.push({ code: 'rigid_undercut', grade: 'stop' })
  }
  const heldByAir = !facts.oneTime && facts.build === 'one_piece' && facts.material !== 'plaster'
  if (heldByAir && facts.flex === 'rigid') found.push({ code: 'vacuum_grip', grade: 'care' })
  if (heldByAir && facts.flex === 'springy') found.push({ code: 'springs_free', grade: 'fine' })
  if (facts.build === 'cut_open') found.push({ code: 'cut_open_needs_keys', grade: 'care' })
  return found.length > 0 ? found : [{ code: 'lets_go', grade: 'fine' }]
}

/** Ways of filling that get the air out; the pour's steps take the first two over. */
export const AIR_TACTICS = [
  'brush_coat',
  'part_fill',
  'deepest_first',
  'tilt',
  'against_wall',
  'vent',
  'poke',
  'mist',
] as const
export type AirTactic = (typeof AIR_TACTICS)[number]

const TACTICS_OF: Record<AirTrap, readonly AirTactic[]> = {
  deep_fingers: ['part_fill', 'deepest_first', 'poke'],
  hooks: ['part_fill', 'tilt', 'poke'],
  flat_ceiling: ['tilt', 'vent'],
  lettering: ['brush_coat', 'mist'],
  fine_texture: ['brush_coat', 'mist'],
  vertical_faces: ['against_wall'],
}

/**
 * What to do about the air in forms like these (common practice, no source), in the order of doing it. No brush reaches the
 * faces of parts that are strapped together: there a first part is swirled over them instead.
 */
export function airTactics({ airTraps, build }: Pick<MouldFacts, 'airTraps' | 'build'>): AirTactic[] {
  const wanted = new Set(airTraps.flatMap((t) => TACTICS_OF[t]))
  if (build === 'parts' && wanted.delete('brush_coat')) wanted.add('part_fill').add('tilt')
  return AIR_TACTICS.filter((t) => wanted.has(t))
}

/** Things to have done before water meets powder, in the order of doing them. */
export const PREPARATIONS = [
  'bench_ready',
  'photograph_first',
  'loose_bits_out',
  'wash_and_look',
  'drain_and_dry',
  'pick_out_crumbs',
  'seal_pores',
  'soap_coats',
  'release_film',
  'cut_vents',
  'seat_in_jacket',
  'hang_flange',
  'bed_in_sand',
  'box_up',
  'keys_and_tape',
  'strap_parts',
  'clay_the_seams',
  'box_the_tray',
  'push_dam_in',
  'plug_leaks',
  'mist_crust',
  'thickness_marks',
  'score_layer',
  'wet_layer',
  'bonding_mix',
  'level_it',
  'same_day',
] as const
export type Preparation = (typeof PREPARATIONS)[number]

/** What the prints among these lie in; undefined where nobody said, or they lie in different ground. */
export function soilOf(members: readonly { volume: CavityDescription }[]): FieldGround | undefined {
  const soils = new Set(
    members.flatMap((m) =>
      m.volume.parts.flatMap(({ method }) => (method.by === 'traced' ? [method.soil] : [])),
    ),
  )
  return soils.size === 1 ? [...soils][0] : undefined
}

/** The preparation list of this mould, found this way, for the pour at hand. Not a generic one. */
export function preparationOf(facts: MouldFacts, volume: CavityDescription): Preparation[] {
  const methods = [...volume.parts.map((p) => p.method), ...(volume.check ? [volume.check] : [])]
  const { material } = facts
  const inGround = material === 'sand_soil'
  // On a beach there is no bench to cover.
  const wanted = new Set<Preparation>(inGround ? [] : ['bench_ready'])
  const firstUse = MATERIAL_NATURE[material].oneTime
  if (inGround) wanted.add('photograph_first').add('loose_bits_out').add('push_dam_in').add('plug_leaks')
  if (methods.some((m) => m.by === 'traced' && (m.soil === 'snow' || m.soil === 'sand')))
    wanted.add('mist_crust')
  if (!firstUse) wanted.add('wash_and_look')
  if (methods.some((m) => m.by === 'water_fill') && !inGround) wanted.add('drain_and_dry')
  if (material === 'alginate') wanted.add('pick_out_crumbs').add('same_day')
  if (material === 'impression_compound') wanted.add('box_the_tray')
  if (material === 'wood' || material === 'card') wanted.add('seal_pores').add('release_film')
  if (material === 'plaster') wanted.add('soap_coats')
  if (['rigid_plastic', 'metal', 'polyurethane'].includes(material)) wanted.add('release_film')
  if (airTactics(facts).includes('vent') || facts.opening === 'narrow') wanted.add('cut_vents')
  if (facts.support === 'mother_mould') wanted.add('seat_in_jacket')
  if (material === 'latex' && facts.support !== 'mother_mould') wanted.add('hang_flange')
  if (facts.support === 'sand_bed') wanted.add('bed_in_sand')
  if (facts.support === 'box') wanted.add('box_up')
  if (facts.build === 'cut_open') wanted.add('keys_and_tape').add('clay_the_seams')
  if (facts.build === 'parts') wanted.add('strap_parts').add('clay_the_seams')
  if (material === 'wood' || material === 'card') wanted.add('clay_the_seams')
  if (methods.some((m) => m.by === 'shell')) wanted.add('thickness_marks')
  else wanted.add('level_it')
  for (const m of methods) {
    if (m.by !== 'top_up') continue
    const keying = keyingOf(m.below)
    if (keying.includes('score')) wanted.add('score_layer')
    if (keying.includes('wet_the_set_layer')) wanted.add('wet_layer')
    if (keying.includes('bonding_coat')) wanted.add('bonding_mix')
  }
  return PREPARATIONS.filter((p) => wanted.has(p))
}

export type WearAdvice = 'fresh' | 'look_closely' | 'make_another' | 'past_its_life'

export interface Wear {
  casts: number
  life: Range
  advice: WearAdvice
}

/**
 * How far a mould is through its life. `lifeCasts` is the caster's own figure where they have one. A tear or a crack
 * noted at demould asks for another mould whatever the count.
 */
export function wearOf(
  material: MouldMaterial,
  casts: number,
  damages: number,
  lifeCasts: number | null,
): Wear {
  const usual = MATERIAL_NATURE[material].life
  const low = lifeCasts === null ? usual.low : 0.8 * lifeCasts
  const high = lifeCasts ?? usual.high
  const life = { low, mid: Math.sqrt(low * high), high }
  const advice: WearAdvice =
    casts >= high
      ? 'past_its_life'
      : casts >= life.mid || damages > 0
        ? 'make_another'
        : casts >= 0.8 * low
          ? 'look_closely'
          : 'fresh'
  return { casts, life, advice }
}
