import type { FinishTask } from '#core/finish'

/** What is done to a piece once it is out. */
export interface TaskWords {
  name: string
  /** With what. */
  gear: string
  /** What spoils it. */
  spoils: string
}

export const TASK_WORDS: Record<FinishTask, TaskWords> = {
  peel_clay: {
    name: 'Peel the clay off, from the rim',
    gear: 'fingers, a wooden tool',
    spoils: 'Left to dry it shrinks, and takes detail with it.',
  },
  pick_gel: {
    name: 'Pick the gel out of hooks and fingers',
    gear: 'a wooden stick, never metal',
    spoils: 'The face is soft: prise towards the gel, not against the plaster.',
  },
  leave_soil: {
    name: 'Leave its soil on, or decide to rinse it',
    gear: 'a note of where it was taken',
    spoils: 'Once rinsed it is gone, and with it what the ground was.',
  },
  knock_bumps: {
    name: 'Knock surface bumps off',
    gear: 'a stick or a blunt knife',
    spoils: 'Too dry they take a crater with them.',
  },
  fill_voids: {
    name: 'Fill voids',
    gear: 'a little fresh plaster, a wet brush',
    spoils: 'A dry piece drinks the filling’s water: wet it first.',
  },
  round_edges: {
    name: 'Round sharp edges',
    gear: 'scraper or rasp',
    spoils: 'A thin edge crumbles when it is cut outwards: towards the middle.',
  },
  trim_base: {
    name: 'Trim the base flat and upright',
    gear: 'rasp, wet grit on a flat board, a square',
    spoils: 'Leave a land all round; never lift it by the detail.',
  },
  scrub: { name: 'Scrub it over', gear: 'a wet scrub pad', spoils: 'Fresh plaster wears fast: lightly.' },
  rinse_dab: {
    name: 'Rinse gently and dab dry',
    gear: 'a soft toothbrush, a clean rag; over a bucket, never a drain',
    spoils: 'Wiping smears fines into the detail.',
  },
  sand_wet: {
    name: 'Sand it wet',
    gear: 'wet paper, water in a bucket',
    spoils: 'Slurry left on it sets: rinse.',
  },
  sand_dry: {
    name: 'Sand it dry',
    gear: 'paper, a fitted dust respirator, a damp cloth',
    spoils: 'Damp, it clogs the paper and tears.',
  },
  paint: {
    name: 'Paint it, water based',
    gear: 'a first coat thinned',
    spoils: 'Water inside lifts the paint and brings salts out.',
  },
  seal: {
    name: 'Seal, wax or oil it',
    gear: 'shellac, wax, oil or sealer',
    spoils: 'Water shut in makes it cloudy, and soft behind the film.',
  },
}
