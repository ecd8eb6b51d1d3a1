export interface RingArc {
  index: number
  radius: number
  width: number
  length: number
  fill: number
  material: 'before' | 'wet' | 'warm' | 'dry'
}

const MATERIALS: RingArc['material'][] = [
  'before',
  'before',
  'wet',
  'wet',
  'wet',
  'wet',
  'warm',
  'warm',
  'dry',
]

/** Geometry of the sign in a box of 100: ring radii, widths and how much of each is drawn. */
export function ringArcs(rings: readonly number[]): RingArc[] {
  const width = 50 / (rings.length + 0.35)
  return rings.map((fill, index) => {
    const radius = width * (index + 0.75)
    return { index, radius, width, length: 2 * Math.PI * radius, fill, material: MATERIALS[index]! }
  })
}
