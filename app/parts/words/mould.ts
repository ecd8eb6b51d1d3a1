import type {
  AirTactic,
  DescriptionIssueCode,
  KeyingStep,
  LetGoCode,
  MouldFacts,
  MouldKind,
  MouldMaterial,
  Preparation,
  Purpose,
  ReleaseCode,
  ThicknessCode,
  VolumeNote,
  WearAdvice,
} from '#core/mould'
import type { ProfileFileError } from '#core/formats'
import type { MouldDamage } from '#core/pour'

/** Every sentence about moulds that hangs on a code. */

export const MATERIAL_WORDS: Record<MouldMaterial, string> = {
  silicone: 'Silicone rubber',
  polyurethane: 'Polyurethane rubber',
  latex: 'Latex skin',
  rigid_plastic: 'Rigid plastic',
  plaster: 'Plaster',
  wood: 'Wood or board',
  metal: 'Metal',
  wet_clay: 'Wet clay',
  alginate: 'Alginate (skin-safe gel)',
  impression_compound: 'Impression compound',
  sand_soil: 'Sand or soil',
  card: 'Card',
}

/** One respect in which moulds differ: its name, and what it can be, as a form offers it and a card says it. */
export type FactWords<Value> = {
  label: string
  /** Belongs to how the mould is built, which is looked at less often than what it does to the cast. */
  built?: true
} & (Value extends readonly (infer Each extends string)[]
  ? { several: Record<Each, string> }
  : Value extends string
    ? { one: Record<Value, string> }
    : { yes: string; no: string })

/** In the order of the form. A property of `MouldFacts` that has no words here does not compile. */
export const FACT_WORDS: { [K in keyof MouldFacts]: FactWords<MouldFacts[K]> } = {
  material: { label: 'Made of', one: MATERIAL_WORDS },
  undercut: { label: 'Undercut', one: { none: 'None', slight: 'Slight', deep: 'Deep' } },
  airTraps: {
    label: 'Where air could sit',
    several: {
      deep_fingers: 'Deep fingers',
      hooks: 'Hooks',
      flat_ceiling: 'Flat ceiling',
      lettering: 'Lettering',
      fine_texture: 'Fine texture',
      vertical_faces: 'Tall upright faces',
    },
  },
  build: {
    label: 'Built',
    built: true,
    one: { one_piece: 'One piece', parts: 'In parts', cut_open: 'Cut open' },
  },
  flex: {
    label: 'Its wall',
    built: true,
    one: { rigid: 'Rigid', springy: 'Gives a little', flexible: 'Flexible' },
  },
  support: {
    label: 'Held by',
    built: true,
    one: { none: 'Stands by itself', mother_mould: 'Mother mould', box: 'Box', sand_bed: 'Sand bed' },
  },
  opening: { label: 'Opening', built: true, one: { wide: 'Wide open', narrow: 'Narrow hole' } },
  oneTime: { label: 'Life', built: true, yes: 'One cast only', no: 'Used again' },
}

/** A mould's facts, line by line. */
export function factLines(facts: MouldFacts): [what: string, value: string][] {
  return (Object.keys(FACT_WORDS) as (keyof MouldFacts)[]).map((key) => {
    const words = FACT_WORDS[key] as FactWords<string> | FactWords<readonly string[]> | FactWords<boolean>
    const value = facts[key]
    if ('one' in words) return [words.label, words.one[value as string]!]
    if ('yes' in words) return [words.label, value === true ? words.yes : words.no]
    return [words.label, (value as readonly string[]).map((v) => words.several[v]).join(', ') || 'nowhere']
  })
}

export const PURPOSE_WORDS: Record<Purpose, string> = {
  figure: 'Figure or ornament',
  tile: 'Tile or plate',
  print: 'Print cast',
  dental: 'Dental model',
  slab: 'Drying slab',
  slip_mould: 'Potter’s mould',
  shell: 'Investment shell',
  mother_mould: 'Mother mould',
  prop: 'Prop that must break',
  chalk: 'Chalk or crayons',
}

export const NOTE_WORDS: Record<VolumeNote, string> = {
  water_to_fill_line:
    'Corrected for the water’s temperature. Filled to another depth, it holds another amount.',
  drain_before_casting: 'Drain and dry it before casting: water left inside thins the face of the cast.',
  grains_pack_alike: 'Grains pack alike in mould and jug, so the voids between them cancel out.',
  grains_loosen_at_walls:
    'Corrected: in a narrow place they lie looser than in the jug. Not corrected: shaking one and not the other.',
  grains_miss_fine_detail: 'Not corrected: detail finer than a grain stays empty.',
  form_taken_as_ideal: 'The form is taken as ideal; a rule inside a mould is good to a millimetre or two.',
  wall_between_profiles: 'Counts the wall between the two profiles.',
  print_by_its_form:
    'How much of its depth the print has on average is taken by its form: that may be off by a quarter.',
  print_by_depths: 'By the mean of what a stick said at three places or more.',
  print_taken_half_as_deep: 'The print is taken as half as deep, on average, as its deepest place.',
  ground_spreads: 'With an allowance for what soft ground takes.',
  typical_size_only: 'A typical size. Displaced water tells better.',
  rounded_corners_counted: 'Edges and corners get the rounded coat that hands give them.',
  area_taken_as_flat: 'Area × thickness: a tightly curved form takes more.',
  expansion_taken_off: 'The cast has grown as it set; that is taken off.',
  damp_cast_weighs_more: 'A cast not yet bone dry weighs more, and makes the mould look larger than it is.',
}

/** How lengths and volumes are written in the workshop's own units. */
export interface Show {
  length: (lengthMm: number) => string
  volume: (volumeMl: number) => string
}

/** With what mixing needs besides. */
export interface MixShow extends Show {
  mass: (massG: number) => string
  temp: (tempC: number) => string
  density: (densityKgM3: number) => string
  size: (lengthMm: number) => string
}

export const VOLUME_ISSUE_WORDS: Record<
  DescriptionIssueCode,
  (actual: number, limit: number, show: Show) => string
> = {
  ring_inside_out: () => 'The hole is as wide as the ring, or wider.',
  deeper_than_half_round: (_, limit, show) =>
    `A half-round is at most half as deep as it is wide: ${show.length(limit)}.`,
  corner_larger_than_slab: (_, limit, show) =>
    `A corner can be at most half the shorter side: ${show.length(limit)}.`,
  nothing_left: () => 'What is taken off is as much as there is, or more.',
  profile_too_short: () => 'A profile has at least two points.',
  profile_crosses_itself: (up, across, show) =>
    `The line crosses itself ${show.length(across)} from the axis, ${show.length(up)} up. Move a point there.`,
  profile_holds_nothing: () => 'This profile holds nothing: draw from the deepest point up to the rim.',
  inner_outside_outer: (up, across, show) =>
    `The inner line leaves the outer one ${show.length(across)} from the axis, ${show.length(up)} up: inside out.`,
  grain_too_large: (_, limit, show) =>
    `These grains do not run into places narrower than ${show.length(limit)}: take finer ones.`,
  fill_outside_profile: (_, limit, show) =>
    `The fill line must lie inside the profile: up to ${show.length(limit)}.`,
  wall_uneven: (thin, thick, show) =>
    `The wall goes from ${show.length(thin)} to ${show.length(thick)}. Even to a fifth dries and draws evenly.`,
  cover_too_thin: (_, limit, show) =>
    `Over this print and ground ${show.length(limit)} of cover is usual: thinner breaks on lifting.`,
  object_larger_than_container: (actual, limit, show) =>
    `What goes in (${show.volume(actual)}) is larger than the container to its fill line (${show.volume(limit)}).`,
  object_wider_than_container: () => 'It is wider than the container.',
  object_deeper_than_container: () => 'It reaches deeper than the gel.',
  clearance_too_small: (actual, limit, show) =>
    `Only ${show.length(actual)} of gel at the side: under ${show.length(limit)} it tears. Take a wider container.`,
  clearance_below_too_small: (actual, limit, show) =>
    `Only ${show.length(actual)} of gel below: under ${show.length(limit)} it wears through. Fill deeper or hold higher.`,
  shell_without_thickness: () => 'A shell needs a thickness.',
  holds_too_little: (_, least, show) =>
    `That is less than ${show.volume(least)}: some measurement is missing.`,
  holds_too_much: (_, most, show) => `That is more than ${show.volume(most)}: look at the units.`,
  methods_disagree: (check, parts, show) =>
    `The two ways give ${show.volume(parts)} and ${show.volume(check)}: further apart than either should be off. Measure again, or say which to trust.`,
}

interface Advice {
  text: string
  why: string
}

export const RELEASE_WORDS: Record<ReleaseCode, Advice> = {
  none_on_rubber: {
    text: 'No release.',
    why: 'Plaster does not hold on silicone; a film only blurs detail.',
  },
  thin_film_on_rubber: {
    text: 'A breath of release, brushed out thin.',
    why: 'Polyurethane can grip plaster and wears faster without.',
  },
  talc_when_peeling: {
    text: 'No release; talc inside the skin as it peels.',
    why: 'Latex lets go by itself but clings to itself once folded back.',
  },
  thin_streak_free_film: {
    text: 'A thin film of release, no streaks.',
    why: 'Smears and blobs print on the cast, and on everything made from it.',
  },
  soap_and_seal: {
    text: 'Seal, then soap in thin coats, wiped off each time.',
    why: 'Plaster grows into plaster: bare pores make one block of the two.',
  },
  seal_then_film: {
    text: 'Seal the pores, then a thin film of release.',
    why: 'Wood and card drink the water from the mix and swell.',
  },
  none_on_clay: { text: 'Nothing.', why: 'Wet clay lets go by itself; oil only spoils it.' },
  none_on_gel: { text: 'Nothing.', why: 'The gel is wet; shake out pooled water only.' },
  none_on_compound: {
    text: 'Nothing; rinse and shake dry.',
    why: 'It is softened warm for seconds when it comes off.',
  },
  none_in_ground: { text: 'Nothing.', why: 'The soil comes up with the cast and is brushed off later.' },
  modified_grabs: {
    text: 'A mix with polymer or cement in it grabs harder.',
    why: 'Then use release even where plain plaster needs none, and try a corner first.',
  },
}

export const LET_GO_WORDS: Record<LetGoCode, string> = {
  rigid_undercut:
    'It cannot let go: a rigid mould of one piece with an undercut. Make it in parts, in rubber, or as a waste mould.',
  undercut_breaks_out: 'The undercut does no harm: this mould is broken away.',
  undercut_in_parts:
    'Each part must be free of undercuts by itself: look at every part from where it is pulled.',
  undercut_flexes: 'The undercut flexes free.',
  deep_undercut_peels:
    'A deep undercut: peel it back from the base, or cut it open. Wait until the piece is cool.',
  vacuum_grip:
    'Rigid all round, it holds by vacuum: turn it over, tap, let air in at the rim, or blow through a hole in the floor.',
  springs_free: 'It gives a little: flex it and air runs in.',
  cut_open_needs_keys:
    'Match the keys, tape with tape that does not stretch, firm but not tight: over-tight squeezes the form.',
  lets_go: 'Nothing holds it.',
}

export const TACTIC_WORDS: Record<AirTactic, string> = {
  brush_coat: 'Brush a first coat over the detail: push, do not paint.',
  part_fill: 'A little first, tap hard so that it runs into every finger, then the rest.',
  deepest_first: 'Begin at the deepest point and let it push the air ahead.',
  tilt: 'Tilt the mould while it fills, so that no ceiling lies flat.',
  against_wall: 'Run it down a wall, never onto the face.',
  vent: 'A vent at the highest places lets the air out.',
  poke: 'Poke a thin stick or wire into every hook and finger, gently, while it flows.',
  mist: 'Once it is full: a fine mist of alcohol, or a breath, bursts the bubbles on top. No flame near.',
}

export const PREPARATION_WORDS: Record<Preparation, string> = {
  bench_ready: 'Bench covered; rags, rinse bucket and bin at hand',
  photograph_first: 'Photograph it straight down, a scale in the frame',
  loose_bits_out: 'Loose bits picked out; nothing pressed down',
  wash_and_look: 'Mould clean, looked over for tears and cracks',
  drain_and_dry: 'The water it was measured with is out, and it is dry',
  pick_out_crumbs: 'Crumbs picked out, pooled water shaken out',
  seal_pores: 'Pores sealed',
  soap_coats: 'Soaped in thin coats, wiped',
  release_film: 'Release thin and even, no streaks',
  cut_vents: 'Vents open at the highest places',
  seat_in_jacket: 'Rubber seated in its jacket, no folds',
  hang_flange: 'Skin hung by its flange',
  bed_in_sand: 'Bedded in sand to the rim, not squeezed',
  box_up: 'Boxed up, nothing pressing on the rubber',
  keys_and_tape: 'Keys matched, taped firm but not tight',
  strap_parts: 'Parts strapped together',
  clay_the_seams: 'Seams tight with clay',
  box_the_tray: 'Tray rinsed, its edge boxed',
  push_dam_in: 'Dam pushed in and sealed with mud',
  plug_leaks: 'Leaks and cracks plugged from outside',
  mist_crust: 'Misted with water: dry sand holds, snow freezes a crust',
  thickness_marks: 'Marks set for the thickness of the shell',
  score_layer: 'Layer below scored',
  wet_layer: 'Dry layer below wetted until it stops drinking',
  bonding_mix: 'A thin bonding coat goes on first, while liquid',
  level_it: 'Level where it will stay; it must not be moved',
  same_day: 'Filled the same day: the gel shrinks',
}

export const KEYING_WORDS: Record<KeyingStep, string> = {
  scrape_back: 'Roughen it while it is soft',
  pour_on_now: 'pour on now, no bonding coat needed',
  score: 'Score it crosswise',
  wet_the_set_layer: 'wet it until it stops drinking',
  bonding_coat: 'brush on a thin bonding coat and pour while that is liquid',
}

export const THICKNESS_WORDS: Record<ThicknessCode, (actual: number, limit: number, show: Show) => string> = {
  print_too_thin: (a, l, show) =>
    `${show.length(a)} over a print is thin: ${show.length(l)} or more lifts in one piece.`,
  dental_base_too_thin: (a, l, show) =>
    `A base of ${show.length(a)} breaks on trimming: ${show.length(l)} is the least, ${show.length(15)} usual.`,
  dental_base_thinner_than_usual: (a, l, show) =>
    `A base of ${show.length(a)} will do; ${show.length(l)} is usual.`,
  slab_too_thin: (a, l, show) =>
    `A drying slab of ${show.length(a)} drinks little and cracks: at least ${show.length(l)}.`,
  slab_too_thick: (a, l, show) =>
    `A drying slab over ${show.length(l)} only dries more slowly; this one has ${show.length(a)}.`,
  plate_will_break: (a, l, show) =>
    `At ${show.length(a)} a plate breaks in the hand; ${show.length(l)} and more holds.`,
  slip_wall_too_thin: (a, l, show) =>
    `A mould wall of ${show.length(a)} drinks its fill too soon; ${show.length(l)} or more is usual.`,
}

export const WEAR_WORDS: Record<WearAdvice, string> = {
  fresh: 'Plenty of life left',
  look_closely: 'Look it over before each pour',
  make_another: 'Time to make another',
  past_its_life: 'Past its usual life',
}

export const DAMAGE_WORDS: Record<MouldDamage, string> = {
  tear: 'Tear',
  crack: 'Crack',
  detail_lost: 'Detail lost',
  bits_stuck: 'Bits stuck in it',
  out_of_shape: 'Out of shape',
}

export const PROFILE_FILE_WORDS: Record<ProfileFileError, string> = {
  no_path: 'There is no path in this SVG.',
  broken_path: 'This path cannot be read',
  no_numbers: 'Two columns of numbers are needed, radius and height in mm. Not numbers',
  too_few_points: 'A profile has at least two points.',
  left_of_axis: 'The profile must lie to the right of its axis. Left of it',
}

export const MOULD_KIND_WORDS: Record<MouldKind, string> = {
  silicone: 'Silicone rubber',
  rigid_plastic: 'Rigid plastic',
  plaster_piece: 'Plaster piece mould',
  box: 'Wooden or board box',
  latex: 'Latex skin',
  waste_clay: 'Clay or waste mould',
  alginate: 'Alginate (skin-safe gel)',
  impression_tray: 'Impression tray',
  shell: 'Investment shell',
  ground: 'Print in the ground',
}
