import type { AddingWay, BowlFill, FillingWay, KnownStep } from '#core/pour'
import { soilOf } from '#core/mould'
import { GROUND_ADVICE, GROUND_OUT, GROUND_POUR } from './field'
import { stepTitle, type StepOf, type WaysOf } from './stepTitles'

/** What each step of a pour says besides its title; filling and adding ways have their own words for some. */

interface Saying {
  /** What the big target says: what has just happened when it is struck. */
  action: string
  how: string
  /** The sign that it is done, where there is one to see or feel. */
  until?: string
  /** What to have in hand. */
  gear?: string
}

const STEP_WORDS: Record<KnownStep, Saying> = {
  prepare: {
    action: 'The mould is ready',
    how: 'Clean, released if it needs it, sealed, level, supported where it will stay. Rags, rinse bucket and bin at hand.',
  },
  key_layer: {
    action: 'Scored and clean',
    how: 'Crossed scratches over the whole face, crumbs brushed off. A dry layer is wetted until it stops drinking.',
    until: 'no smooth patch is left',
    gear: 'a scraper or old fork, a brush, water',
  },
  check_air: {
    action: 'Seen and heard: it draws',
    how: 'Hold a strip of tissue to it: it must lean in. Listen: it must sound as usual. No powder moves before that.',
    until: 'the tissue leans in',
    gear: 'a strip of tissue, the fitted respirator',
  },
  weigh_water: {
    action: 'Water is weighed',
    how: 'Tare the bowl. Water first, always.',
    gear: 'the clean bowl, scale, jug',
  },
  weigh_admix: {
    action: 'It is in the water',
    how: 'Weigh it, stir until it is dissolved or even, then go on.',
    until: 'nothing lies on the bottom',
  },
  weigh_powder: {
    action: 'Plaster is weighed',
    how: 'In a dry container of its own, so that a mistake can be taken back out.',
    gear: 'a dry container, scoop, scale',
  },
  weigh_filler: {
    action: 'It is weighed',
    how: 'In the dry container with the plaster, then mix it all dry, with the lid on.',
    gear: 'the dry container with its lid',
  },
  start_sift: {
    action: 'I am starting now',
    how: 'Evenly over the whole surface, lumps broken, no stirring.',
    gear: 'a sieve or two fingers',
  },
  sift: {
    action: 'It is all in',
    how: 'Let it sink and drink. Do not stir yet.',
    until: 'the last of it no longer sinks at once',
  },
  soak: {
    action: 'I am stirring now',
    how: 'Leave it still until the crust is wet through.',
    until: 'no dry white is left on top',
  },
  stir: {
    action: 'Smooth: stop stirring',
    how: 'Slow, no air in. Scrape the bottom edge. Stop when it is free of lumps and creamy.',
    until: 'it coats the glove and has no lumps',
    gear: 'a gloved hand, spatula or stick',
  },
  face_coat: {
    action: 'The face is coated',
    how: 'Push it into the detail with a brush or fingertip; do not paint.',
    until: 'no bare spot and no bubble shows',
    gear: 'a soft brush, wetted',
  },
  bond_coat: {
    action: 'The layer below is coated',
    how: 'Thin, while it is still liquid, tapped and rubbed into every scratch. The rest follows before it dulls.',
    until: 'every scratch is filled and wet',
    gear: 'a stiff brush',
  },
  squeeze: {
    action: 'Every face is wet: going on',
    how: 'Pour in a little, squeeze and roll the skin so that it runs over every face and into every tip.',
    until: 'no rubber shows through anywhere',
  },
  part_fill: {
    action: 'Tapped: going on',
    how: 'A little, then tap hard so that it runs into every finger.',
    until: 'no more bubbles come up',
  },
  thicken: {
    action: 'A peak stands',
    how: 'Leave the bowl. Lift the spatula now and then: it is ready when the peak it pulls stays up.',
    until: 'a pulled peak stays',
    gear: 'a spatula',
  },
  reinforce: {
    action: 'It is in',
    how: 'Fabric dipped in the slurry and pressed flat, edges overlapping; or chopped fibre stirred into this bowl’s rest.',
    until: 'no dry thread and no pocket of air is left',
    gear: 'fabric cut to size beforehand, or weighed fibre',
  },
  pour: {
    action: 'The mould is full',
    how: 'Low, slow, a thin stream, from the deepest point; let it push the air ahead.',
    until: 'it stands level with the rim',
  },
  build: {
    action: 'This layer is on',
    how: 'Top down, handful by handful, even all over; shake it so that it flows together.',
    until: 'the same thickness everywhere, edges too',
    gear: 'gloves, a depth pin or marks',
  },
  turn: {
    action: 'A coat stays on every side',
    how: 'Slowly over every side so that it coats evenly. What still runs at the end goes back into the bowl.',
    until: 'it no longer runs',
  },
  vibrate: {
    action: 'The air is out',
    how: 'Let it creep and settle with the table running low. Past thickening it is done harm.',
    until: 'no more bubbles break the surface',
    gear: 'vibrating table',
  },
  roughen: {
    action: 'Rough: the next bowl',
    how: 'While it is soft: comb or scratch the whole surface. The next bowl is mixed straight after.',
    until: 'no smooth patch is left',
    gear: 'a fork or comb',
  },
  tap: {
    action: 'Done: leave it still',
    how: 'Tap or shake gently. Level it, then hands off.',
    until: 'no more bubbles come up',
  },
  level: {
    action: 'Done: leave it still',
    how: 'Smooth the outside, true the rim or foot it will stand on, wipe the edge. Then hands off.',
    until: 'it stands without rocking',
    gear: 'a straight edge',
  },
  demould: {
    action: 'Out, and whole',
    how: 'Hard, cooling and dry on top. Fresh casts are soft: they chip and bruise.',
  },
  dry: {
    action: 'Record this weighing',
    how: 'On a rack, in moving air, out of the sun. Weigh it when the clock says: then it tells most.',
  },
}

type Change = Partial<Record<KnownStep, Partial<Saying>>>

/** Where the powder is not sifted, the same steps are done differently. */
const ADDING_CHANGES: Record<AddingWay, Change> = {
  sifted: {},
  tipped_in: {
    start_sift: {
      action: 'It is all in',
      how: 'All of it at once, in one smooth go, so that everything wets together.',
      gear: 'the dry container, its lid off at the last moment',
    },
    soak: {
      how: 'Leave it still. Three minutes is usual for filled mixes.',
      until: 'three minutes are over',
    },
  },
  kneaded: {
    weigh_water: {
      action: 'Water is measured',
      how: 'In a bottle of its own: it goes into the bag last.',
      gear: 'a bottle with a lid',
    },
    weigh_powder: {
      how: 'A strong bag, tied shut until the water goes in.',
      gear: 'a strong bag and a tie',
    },
    start_sift: {
      action: 'The water is in',
      how: 'Water into the bag, press the air out, twist it shut.',
      gear: 'the bag and the bottle',
    },
    stir: {
      action: 'Smooth: stop kneading',
      how: 'Press and fold until no dry pocket is left, corners too. Keep it shut.',
      until: 'no dry pocket is felt',
      gear: 'both hands',
    },
    pour: {
      how: 'A small corner as a spout: low, slow, from one place.',
      gear: 'scissors',
    },
  },
}

/** Where nothing is weighed: the same scoop for both, levelled. */
const BY_SCOOP: Change = {
  weigh_water: {
    action: 'The water is in',
    how: 'Water first, always. With the scoop that the plaster is taken with, brim full.',
    gear: 'the clean bowl, the scoop',
  },
  weigh_powder: {
    action: 'The plaster is measured',
    how: 'Level each scoop with a straight edge, never knock it. Into a dry container of its own.',
    gear: 'the scoop, dry again; a straight edge; a dry container',
  },
}

/** The same into a bag that is kneaded: the water waits in its bottle. */
const BY_SCOOP_INTO_BAG: Change = {
  weigh_water: {
    action: 'Water is measured',
    how: 'With the scoop that the plaster is taken with, brim full, into a bottle: it goes into the bag last.',
    gear: 'a bottle with a lid, the scoop',
  },
  weigh_powder: {
    action: 'The plaster is measured',
    how: 'Level each scoop with a straight edge. Into a strong bag, tied shut until the water goes in.',
    gear: 'the scoop, dry again; a straight edge; a strong bag and a tie',
  },
}
const byScoop = ({ ratioMethod, addingWay }: WaysOf): Change =>
  ratioMethod !== 'by_volume' ? {} : addingWay === 'kneaded' ? BY_SCOOP_INTO_BAG : BY_SCOOP

/** What a way of filling does differently; `base` is what comes after the first bowl. */
const FILLING_CHANGES: Record<FillingWay, { first: Change; base?: Change }> = {
  poured: { first: {} },
  part_fill: { first: {} },
  squeezed: {
    first: {
      pour: {
        how: 'Fill it up low and slow; squeeze once more at half. Held by its flange or in its jacket.',
      },
    },
  },
  slush: {
    first: {
      pour: {
        action: 'It is in',
        how: 'Low and slow, until it covers the deepest part. Then it is turned.',
        until: 'there is enough to run over every side',
      },
    },
  },
  hand_built: { first: {} },
  reinforced: {
    first: { build: { how: 'Thin and even over the reinforcement, pressed on, no air behind it.' } },
  },
  two_stage: {
    first: {
      pour: {
        action: 'The impression is full',
        how: 'On the running table, a little at a time at one side, so that it creeps across to the other and pushes the air ahead.',
        until: 'it stands over the highest edge',
        gear: 'vibrating table, small spatula',
      },
      roughen: {
        action: 'Grooves are cut',
        how: 'While it holds a line: three or four grooves, or rough it with the spatula. The base is mixed straight after.',
        until: 'the grooves stay open',
        gear: 'a knife or spatula',
      },
      tap: { how: 'Tap the former gently, true the top, leave it still.' },
    },
    base: {
      pour: {
        action: 'The base is on',
        how: 'Fill the former, wet the grooves with the same mix, bring the two together, level.',
        until: 'the joint shows no gap all round',
        gear: 'base former',
      },
    },
  },
  second_layer: {
    first: { pour: { how: 'The rest straight onto the wet bonding coat, low and slow.' } },
  },
}

export type StepWords = { title: string } & Saying

/** Out there the mould is the ground, and gives. Common practice, no source. */
function inGround(mould: WaysOf['mould']): Partial<Record<KnownStep, Partial<Saying>>> {
  if (mould?.kind !== 'ground') return {}
  const soil = soilOf(mould.members ?? [])
  const pour = soil
    ? GROUND_POUR[soil]
    : 'Beside the deepest place, over a spoon held low, so that it runs in by itself.'
  return {
    prepare: {
      how: `Photographs first. Loose bits out, nothing pressed. The ring round it. ${soil ? GROUND_ADVICE[soil] : 'Sealed outside with mud.'}`,
    },
    pour: {
      how: `${pour} Deepest first, then up to its cover.`,
      until: 'it stands over the highest point as thick as planned',
      gear: 'a spoon or a flat stick',
    },
    tap: {
      how: 'Tap the ring, or pat the ground beside it; never the print. Then hands off.',
    },
    demould: {
      how: `The ring first, then its edges freed all round; push it, lift it by the rim, pry nowhere. ${soil ? GROUND_OUT[soil] : ''}`.trim(),
    },
    dry: {
      how: 'Soil on or off, as you keep it: no brush until it is no longer cold and clammy. Then rinse at low pressure, dab, a soft brush. Label on its back. Out of the sun, in moving air.',
    },
  }
}

/** What a pour of one bowl of several fills: which moulds are full with it, and which one the next bowl goes on with. */
function fillingOf({ full, begun }: BowlFill): Pick<Saying, 'action' | 'how'> {
  const these = full.map(({ name, count }) => (count > 1 ? `${count} × ${name}` : name)).join(', ')
  const then = begun
    ? ` ${these ? 'It begins' : 'This bowl begins'} ${begun}; the next bowl fills it up at once.`
    : ''
  return {
    action: these ? `Full: ${these}` : 'The bowl is empty',
    how: `${these ? `This bowl fills ${these}.` : ''}${then}`.trim(),
  }
}

/** What one step of a plan says. @param fill what the bowl in hand fills, where each fills moulds of its own. */
export function stepWords(step: StepOf, plan: WaysOf, fill?: BowlFill): StepWords {
  const title = stepTitle(step, plan)
  if (step.id === 'own') return { title, action: 'Done', how: 'A step of this recipe.' }
  const { first, base } = FILLING_CHANGES[plan.filling ?? 'poured']
  return {
    title,
    ...STEP_WORDS[step.id],
    ...ADDING_CHANGES[plan.addingWay ?? 'sifted'][step.id],
    ...byScoop(plan)[step.id],
    ...first[step.id],
    ...(step.batch > 0 ? base?.[step.id] : undefined),
    ...inGround(plan.mould)[step.id],
    ...(fill && step.id === 'pour' ? fillingOf(fill) : undefined),
  }
}

/** Ways of filling, as a plan's choice. */
export const FILLING_WORDS: Record<FillingWay, { label: string; what: string }> = {
  poured: { label: 'Poured', what: 'Low, slow, in one place, then tapped.' },
  part_fill: {
    label: 'A little, tap, fill',
    what: 'For hooks and fingers: the first part is tapped into them.',
  },
  squeezed: {
    label: 'Squeezed, then filled',
    what: 'For latex: a first part is squeezed over every face, then the rest.',
  },
  slush: {
    label: 'Slushed',
    what: 'Hollow: turned until a coat stays; the next bowl follows while that is soft.',
  },
  hand_built: {
    label: 'Built by hand',
    what: 'A face coat is brushed, then layers go on by hand, each roughened for the next.',
  },
  reinforced: {
    label: 'Thin, reinforced',
    what: 'As by hand, with fabric or chopped fibre between the coats.',
  },
  two_stage: {
    label: 'With a base',
    what: 'The impression on a vibrating table, grooves, then the base on a former.',
  },
  second_layer: {
    label: 'Onto a set layer',
    what: 'Scored, a thin bonding coat while it is liquid, then the rest.',
  },
}
