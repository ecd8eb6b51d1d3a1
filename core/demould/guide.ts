import type { MouldFacts, MouldKind } from '../mould'

/** One thing to do to get a piece out, in the order of the table below; words in the interface. */
export const OUT_STEPS = [
  'hold_warm',
  'still_warm_is_best',
  'cut_flange_free',
  'brush_ground_off',
  'press_and_lift_ring',
  'dig_round',
  'lift_both_edges',
  'undo_box',
  'open_jacket',
  'talc_the_skin',
  'untape',
  'free_flange',
  'undo_straps',
  'open_cut',
  'turn_over',
  'let_air_in',
  'tap_and_flex',
  'wedge_parts',
  'peel_from_base',
  'turn_inside_out',
  'peel_clay_from_rim',
  'clay_out_of_shell',
  'warm_compound',
  'lever_straight',
  'break_gel_away',
  'pick_between_fingers',
  'chip_waste_away',
  'support_fingers',
  'set_down_detail_up',
] as const
export type OutStep = (typeof OUT_STEPS)[number]

export const OUT_TOOLS = [
  'knife',
  'wooden_stick',
  'mallet',
  'wedges',
  'spade',
  'board',
  'talc',
  'warm_water',
  'blunt_chisel',
  'padding',
] as const
export type OutTool = (typeof OUT_TOOLS)[number]

/** What gives way first. */
export const FRAGILE_PLACES = ['fingers', 'hooks', 'undercut_lips', 'thin_edges', 'lettering'] as const
export type FragilePlace = (typeof FRAGILE_PLACES)[number]

export interface WayOut {
  steps: OutStep[]
  tools: OutTool[]
  breaksFirst: FragilePlace[]
  /** It holds by suction until air is let in. */
  suction: boolean
  /** The mould is gone once the piece is out. */
  usedUp: boolean
}

const STEPS_OF_KIND: Readonly<Record<MouldKind, readonly OutStep[]>> = {
  silicone: ['hold_warm', 'peel_from_base'],
  rigid_plastic: ['still_warm_is_best', 'turn_over', 'tap_and_flex'],
  plaster_piece: ['still_warm_is_best', 'wedge_parts'],
  box: ['undo_box', 'turn_over'],
  latex: ['free_flange', 'talc_the_skin', 'turn_inside_out'],
  waste_clay: ['peel_clay_from_rim'],
  alginate: ['break_gel_away', 'pick_between_fingers'],
  impression_tray: ['cut_flange_free', 'warm_compound', 'lever_straight'],
  shell: ['clay_out_of_shell'],
  ground: ['press_and_lift_ring', 'dig_round', 'lift_both_edges', 'set_down_detail_up'],
}
const TOOLS_OF_STEP: Readonly<Partial<Record<OutStep, OutTool>>> = {
  cut_flange_free: 'knife',
  open_cut: 'padding',
  turn_over: 'board',
  tap_and_flex: 'mallet',
  wedge_parts: 'wedges',
  peel_clay_from_rim: 'wooden_stick',
  clay_out_of_shell: 'wooden_stick',
  pick_between_fingers: 'wooden_stick',
  warm_compound: 'warm_water',
  talc_the_skin: 'talc',
  dig_round: 'spade',
  chip_waste_away: 'blunt_chisel',
  undo_box: 'knife',
}
/** Thinner than this it snaps before it lets go, mm (common practice, no source). */
const THIN_MM = 8

/**
 * How this piece comes out of this mould: in which order, with what, what breaks first. Common practice, no source.
 * @param thinnestMm of the piece, where its form is known.
 */
export function wayOut(
  kind: MouldKind,
  facts: MouldFacts | undefined,
  thinnestMm: number | undefined,
): WayOut {
  const wanted = new Set<OutStep>(STEPS_OF_KIND[kind])
  const fingers = facts?.airTraps.includes('deep_fingers') ?? false
  const hooks = facts?.airTraps.includes('hooks') ?? false
  const usedUp = facts?.oneTime ?? ['waste_clay', 'alginate', 'shell', 'ground'].includes(kind)
  // Air cannot get in behind a wall that does not give: a bowl holds its cast by vacuum.
  const suction =
    !usedUp &&
    (facts?.build ?? 'one_piece') === 'one_piece' &&
    !['ground', 'box', 'plaster_piece'].includes(kind)
  if (facts?.support === 'mother_mould') wanted.add('open_jacket')
  if (facts?.support === 'box') wanted.add('undo_box')
  if (facts?.build === 'cut_open') wanted.add('untape').add('open_cut')
  if (facts?.build === 'parts') wanted.add('undo_straps').add('wedge_parts')
  if (suction) wanted.add('let_air_in')
  if (usedUp && facts?.material === 'plaster') {
    wanted.delete('peel_clay_from_rim')
    wanted.add('chip_waste_away')
  }
  if (fingers || hooks) wanted.add('support_fingers')
  const steps = OUT_STEPS.filter((s) => wanted.has(s))
  const tools = new Set(steps.flatMap((s) => TOOLS_OF_STEP[s] ?? []))
  return {
    steps,
    tools: OUT_TOOLS.filter((t) => tools.has(t)),
    breaksFirst: [
      ...(fingers ? (['fingers'] as const) : []),
      ...(hooks ? (['hooks'] as const) : []),
      ...(facts && facts.undercut !== 'none' && !usedUp ? (['undercut_lips'] as const) : []),
      ...(thinnestMm !== undefined && thinnestMm < THIN_MM ? (['thin_edges'] as const) : []),
      ...(facts?.airTraps.includes('lettering') ? (['lettering'] as const) : []),
    ],
    suction,
    usedUp,
  }
}
