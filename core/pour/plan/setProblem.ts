import type { SetProblem } from '../../forecast'
import { heatMix, type HeatPiece, type WallMaterial } from '../../heat'
import { mixProperties } from '../../mix'
import { describeCavity, extentOf, slabMmOf, type MouldKind, type MouldMaterial } from '../../mould'
import { settingSigmaLn, type SettingInput } from '../../setting'
import { mixInputOf } from './mix/mixing'
import { SUN_W_M2, type PlanMember, type PourPlan } from './plan'

type Wall = HeatPiece['walls'][number]

/** Walls as such moulds usually have them, mm (common practice, no source); what only stands about a mould is left out. */
export const USUAL_WALL: Readonly<Record<MouldMaterial, Wall | undefined>> = {
  silicone: { material: 'silicone', thicknessMm: 6 },
  polyurethane: { material: 'silicone', thicknessMm: 6 },
  latex: { material: 'latex', thicknessMm: 2 },
  rigid_plastic: { material: 'plastic', thicknessMm: 2 },
  plaster: { material: 'damp_plaster', thicknessMm: 25 },
  wood: { material: 'wood', thicknessMm: 12 },
  metal: { material: 'metal', thicknessMm: 2 },
  wet_clay: { material: 'wet_clay', thicknessMm: 15 },
  alginate: { material: 'alginate', thicknessMm: 25 },
  impression_compound: { material: 'plastic', thicknessMm: 3 },
  sand_soil: undefined,
  card: { material: 'card', thicknessMm: 1 },
}
const JACKET: Wall = { material: 'dry_plaster', thicknessMm: 12 }
const SAND_BED: Wall = { material: 'dry_sand', thicknessMm: 40 }

/** What plans from before moulds were described say of their mould. */
const WALL_OF_KIND: Readonly<Record<MouldKind, MouldMaterial>> = {
  silicone: 'silicone',
  rigid_plastic: 'rigid_plastic',
  plaster_piece: 'plaster',
  box: 'wood',
  latex: 'latex',
  waste_clay: 'wet_clay',
  alginate: 'alginate',
  impression_tray: 'impression_compound',
  shell: 'wet_clay',
  ground: 'sand_soil',
}

interface Body {
  shape: HeatPiece['shape']
  sizeMm: number
  /** The form is known and even enough for one dimension. */
  even: boolean
}

/** A place this much thinner than the body sets by itself. */
const THIN_SHARE = 0.6
/** A cylinder of this volume, radius and length is one; a plate has several times as much. */
const PLATE_FROM = 2
const ROUND_FROM = 0.75

/** The body nearest to a member's form, by its volume, surface and length; undefined where no form tells. */
function bodyOf(member: PlanMember): Body | undefined {
  const found = describeCavity(member.volume)
  const [only, ...more] = member.volume.parts
  if (!found.ok || !only) return undefined
  const { method } = only
  if (more.length === 0) {
    const slabMm = slabMmOf(method)
    if (slabMm !== undefined) return { shape: 'slab', sizeMm: slabMm, even: true }
  }
  const { finding } = found
  const areaMm2 = finding.surfaceMm2 ?? finding.check?.surfaceMm2
  if (areaMm2 === undefined) return undefined
  const volumeMm3 = (1000 * finding.volumeMl) / member.volume.cavities
  const halfMm = (2 * volumeMm3) / areaMm2
  const roundness = (Math.cbrt(Math.PI) * (6 * volumeMm3) ** (2 / 3)) / areaMm2
  const thinnest = member.thinnestMm ?? Infinity
  if (roundness >= ROUND_FROM) {
    const sizeMm = 1.5 * halfMm
    return { shape: 'sphere', sizeMm, even: thinnest >= THIN_SHARE * 2 * sizeMm }
  }
  const longestMm = extentOf(member.volume)?.longestMm ?? Infinity
  const isPlate = volumeMm3 / (Math.PI * halfMm ** 2 * longestMm) > PLATE_FROM || longestMm === Infinity
  return isPlate
    ? { shape: 'slab', sizeMm: halfMm, even: thinnest >= THIN_SHARE * halfMm }
    : { shape: 'cylinder', sizeMm: halfMm, even: thinnest >= THIN_SHARE * 2 * halfMm }
}

function wallsOf(plan: PourPlan, member: PlanMember | undefined): Wall[] {
  const material = member?.facts.material ?? WALL_OF_KIND[plan.mould.kind]
  const wall = USUAL_WALL[material]
  const support = member?.facts.support
  return [
    ...(wall ? [wall] : []),
    ...(support === 'mother_mould' ? [JACKET] : []),
    ...(support === 'sand_bed' ? [SAND_BED] : []),
  ]
}

const WHITE_ABSORBS = 0.3

/** Corners, uneven walls and unknown forms are no one-dimensional piece: what that adds to σ of ln t (estimate). */
const UNEVEN_SIGMA_LN = 0.1
/** Cold ground is wet ground; by how firm it is said to be. */
const GROUND = { firm: 'dry_sand', damp: 'wet_sand', soft: 'wet_silt' } as const satisfies Record<
  string,
  WallMaterial
>

interface HeatPieces {
  piece: HeatPiece
  thin: HeatPiece | undefined
  even: boolean
}

// A plan's mould is replaced, never changed, and volumes of drawn forms take a while.
const known = new WeakMap<PourPlan['mould'], HeatPieces>()

/** The pieces the heat model takes for a plan: the place that gets hottest, and the thinnest where that is another. */
export function heatPiecesOf(plan: PourPlan): HeatPieces {
  const found = known.get(plan.mould) ?? findPieces(plan)
  known.set(plan.mould, found)
  return found
}

function findPieces(plan: PourPlan): HeatPieces {
  const members = plan.mould.members ?? []
  const bodies = members.map((member) => ({ member, body: bodyOf(member) }))
  const thickest = bodies.reduce<(typeof bodies)[number] | undefined>((a, b) => {
    if (!a?.body) return b
    return b.body && b.body.sizeMm > a.body.sizeMm ? b : a
  }, undefined)
  const member = thickest?.member ?? members[0]
  const body: Body = thickest?.body ?? {
    shape: 'slab',
    sizeMm: plan.mould.thicknessMm,
    even: members.length === 0,
  }
  const [first] = member?.volume.parts ?? []
  const inGround = (member?.facts.material ?? WALL_OF_KIND[plan.mould.kind]) === 'sand_soil'
  const ground =
    first?.method.by === 'ground' || first?.method.by === 'traced' ? GROUND[first.method.ground] : 'wet_sand'
  const piece: HeatPiece = {
    shape: body.shape,
    sizeMm: body.sizeMm,
    walls: wallsOf(plan, member),
    standsOn: inGround ? ground : body.shape === 'slab' ? 'bench' : 'air',
    top: member?.facts.opening === 'narrow' ? 'covered' : 'open',
  }
  const thinnestMm = Math.min(...members.map((m) => m.thinnestMm ?? Infinity))
  const acrossMm = body.shape === 'slab' ? body.sizeMm : 2 * body.sizeMm
  const thin: HeatPiece | undefined =
    thinnestMm < THIN_SHARE * acrossMm
      ? { ...piece, shape: 'slab', sizeMm: thinnestMm, standsOn: inGround ? ground : 'bench' }
      : undefined
  return { piece, thin, even: body.even && !thin }
}

/**
 * What the setting of a bowl follows from, once it is (or will be) in the mould.
 * @param pouredAtS s since mid-sprinkle. @param isPoured whether it is there: until then its working time is the bowl's.
 */
export function setProblemOf(
  plan: PourPlan,
  setting: SettingInput,
  pouredAtS: number,
  isPoured: boolean,
): SetProblem {
  const { piece, thin, even } = heatPiecesOf(plan)
  const { air, mouldTempC = air.tempC } = plan
  const mix = mixProperties({ ...mixInputOf(plan), consistency: setting.consistency })
  const mixHeat = heatMix(plan.plaster.properties, setting.consistency, mix)
  return {
    setting,
    mix: { ...mixHeat, heatJKg: mixHeat.heatJKg * (plan.learnt?.heat?.factor ?? 1) },
    piece,
    thin,
    around: {
      airTempC: air.tempC,
      rhPct: air.rhPct,
      speedMS: air.speedMS,
      mouldTempC,
      groundTempC: mouldTempC,
      // White plaster takes up about .3 of it.
      sunWM2: plan.sun ? WHITE_ABSORBS * SUN_W_M2[plan.sun] : 0,
    },
    pouredAtS,
    isPoured,
    sigmaLn: Math.hypot(settingSigmaLn(setting), even ? 0 : UNEVEN_SIGMA_LN),
    even,
    kind: plan.mould.kind,
  }
}
