/** The most that anybody here weighs, holds, buys or pays: past these a figure is a slip, whoever asks. */

/** One weighing, g. */
export const MOST_WEIGHED_G = 1_000_000
/** Plaster bought at once, and what a scale takes, g. */
export const MOST_STOCKED_G = 2_000_000
/** What moulds, bowls and jugs hold, ml. */
export const LEAST_VOLUME_ML = 1
export const MOST_VOLUME_ML = 500_000
/** A cup or scoop to measure with, ml. */
export const LEAST_SCOOP_ML = 5
export const MOST_SCOOP_ML = 20_000
/** A bowl to mix in, ml. */
export const LEAST_BOWL_ML = 50
/** In the workshop's own currency. */
export const MOST_PRICE = 1_000_000

/** As many scoops go into no bowl. */
export const MOST_SCOOPS = 10_000

/** More casts of one pour than these are one lot: nobody tells them apart. */
export const MOST_TOLD_APART = 500
