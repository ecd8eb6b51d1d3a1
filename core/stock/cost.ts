/** Money in the workshop's own currency; amounts are not rounded here. */
export interface Cost {
  pour: number
  perCast: number
  perLitre: number
}

/** What the plaster of a pour costs. @param price of a bag that held `boughtG`. */
export function costOf(of: {
  price: number
  boughtG: number
  powderG: number
  casts: number
  slurryMl: number
}): Cost {
  const pour = (of.price * of.powderG) / of.boughtG
  return { pour, perCast: pour / of.casts, perLitre: (1000 * pour) / of.slurryMl }
}

/** Plaster that planned pours will take. */
export interface Demand {
  plaster: string
  powderG: number
}

export interface Need {
  plaster: string
  wantedG: number
  leftG: number
  missingG: number
  /** Whole bags to buy, where a bag's size is known. */
  bags: number | undefined
}

/** What the planned pours want against what is left, by plaster; only what is missing has bags to buy. */
export function toBuy(
  demands: readonly Demand[],
  stock: readonly { plaster: string; leftG: number; boughtG: number }[],
): Need[] {
  return [...new Set(demands.map((d) => d.plaster))].map((plaster) => {
    const wantedG = demands.filter((d) => d.plaster === plaster).reduce((sum, d) => sum + d.powderG, 0)
    const bags = stock.filter((b) => b.plaster === plaster)
    const leftG = bags.reduce((sum, b) => sum + b.leftG, 0)
    const missingG = Math.max(0, wantedG - leftG)
    const usualG = bags.at(-1)?.boughtG
    return {
      plaster,
      wantedG,
      leftG,
      missingG,
      bags: usualG === undefined ? undefined : Math.ceil(missingG / usualG - 1e-9),
    }
  })
}
