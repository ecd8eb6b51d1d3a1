import type { FieldGround } from '#core/field'

export const SOIL_WORDS: Record<FieldGround, string> = {
  sand: 'Sand',
  mud: 'Mud',
  silt: 'Silt',
  snow: 'Snow',
}

/** What each ground asks for before the ring goes in. Common practice, no source. */
export const GROUND_ADVICE: Record<FieldGround, string> = {
  sand: 'Dry sand runs in: mist it until it holds, and press the ring in from outside.',
  mud: 'Let standing water out by a groove, do not dab it up. Seal the ring with mud from outside.',
  silt: 'It gives under the ring: 25 mm of cover, and seal it twice. Expect soil to come away with the cast.',
  snow: 'Cold first: chill the mix water with snow beside the bag, never in it. A mist of water over the print freezes a crust. Below freezing no forecast of setting holds.',
}

/** How it is poured there. Common practice, no source. */
export const GROUND_POUR: Record<FieldGround, string> = {
  sand: 'A stream washes sand away: over a spoon held low beside the deepest place, so that it runs in by itself.',
  mud: 'Over a spoon held low beside the deepest place, so that it runs in by itself. A leak is plugged with mud at once.',
  silt: 'Over a spoon held low beside the deepest place: silt stirs up easily, and a cloud of it stays in the face.',
  snow: 'Cold, and soon after the crust froze: a thin layer over a spoon first, let it stiffen, then the rest.',
}

/** How it is freed there. Common practice, no source. */
export const GROUND_OUT: Record<FieldGround, string> = {
  sand: 'Its foot dug free all round, then a hand under it. Sand falls off by itself once it is dry.',
  mud: 'Cut round it a hand’s width off. Mud holds by suction: let air in under one side, then lift.',
  silt: 'Tunnel under it and lift it with its ground on something flat; it is freed at home.',
  snow: 'Snow away from outside first, never with warm water. In from the cold slowly.',
}
