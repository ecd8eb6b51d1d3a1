import type { AddingWay, FillingWay, KnownStep, PlanStep, PourPlan } from '#core/pour'

/** What each step of a pour is called. Apart from the rest of its words: the bench needs no more. */

const TITLES: Record<KnownStep, string> = {
  prepare: 'Get the mould ready',
  key_layer: 'Score the layer below',
  check_air: 'Is the extraction on?',
  weigh_water: 'Weigh the water',
  weigh_admix: 'Into the water',
  weigh_powder: 'Weigh the plaster',
  weigh_filler: 'Weigh what goes in dry',
  start_sift: 'Ready to sift',
  sift: 'Sift the plaster in',
  soak: 'Leave it to soak',
  stir: 'Stir under the surface',
  face_coat: 'Brush the first coat',
  bond_coat: 'Tap in a bonding coat',
  squeeze: 'A little in, and squeeze',
  part_fill: 'Pour a little first',
  thicken: 'Wait for the peak',
  reinforce: 'Lay in the reinforcement',
  pour: 'Pour',
  build: 'Build it up by hand',
  turn: 'Turn it until it stays',
  vibrate: 'Off the table when the air is out',
  roughen: 'Roughen it for the next layer',
  tap: 'Tap the air out',
  level: 'Level and leave it',
  demould: 'Take it out',
  dry: 'Let it dry',
}

type Some = Partial<Record<KnownStep, string>>

/** Where the powder is not sifted, the same steps are called otherwise. */
const OF_ADDING: Partial<Record<AddingWay, Some>> = {
  tipped_in: {
    start_sift: 'Ready to tip it in',
    soak: 'Leave it to slake',
  },
  kneaded: {
    weigh_water: 'Measure the water',
    weigh_powder: 'Weigh the plaster into the bag',
    start_sift: 'Ready to add the water',
    stir: 'Knead the bag',
    pour: 'Cut the corner and pour',
  },
}

/** And in some ways of filling; `base` is what comes after the first bowl. */
const OF_FILLING: Partial<Record<FillingWay, { first: Some; base?: Some }>> = {
  slush: {
    first: {
      pour: 'Pour it in',
    },
  },
  two_stage: {
    first: {
      pour: 'In at one side',
      roughen: 'Cut grooves for the base',
      tap: 'Settle the base',
    },
    base: {
      pour: 'Pour the base on its former',
    },
  },
}

export type StepOf = Pick<PlanStep, 'id' | 'own' | 'batch'>
export type WaysOf = Partial<Pick<PourPlan, 'addingWay' | 'filling' | 'ratioMethod' | 'mould'>>

/** Where nothing is weighed. */
const BY_SCOOP: Some = { weigh_water: 'Measure the water', weigh_powder: 'Scoop the plaster' }

const INTO_BAG: Some = { weigh_powder: 'Scoop the plaster into the bag' }

/** What is going on, or to be done, as a heading. */
export function stepTitle(
  step: StepOf,
  { addingWay = 'sifted', filling = 'poured', ratioMethod }: WaysOf,
): string {
  if (step.id === 'own') return step.own?.name ?? 'A step of your own'
  const way = OF_FILLING[filling]
  return (
    (step.batch > 0 ? way?.base?.[step.id] : undefined) ??
    way?.first[step.id] ??
    (ratioMethod === 'by_volume'
      ? { ...BY_SCOOP, ...(addingWay === 'kneaded' ? INTO_BAG : {}) }[step.id]
      : undefined) ??
    OF_ADDING[addingWay]?.[step.id] ??
    TITLES[step.id]
  )
}
