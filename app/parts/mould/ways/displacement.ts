import { Hand } from '@lucide/vue'
import { usualFacts, type Point, type TypicalPart } from '#core/mould'
import { across, rect, up, wallOf, type SectionDrawing } from './drawing'
import { choice, length, list, volume } from './fields'
import type { MethodBy, ShownWay } from './way'

const PART_WORDS: Record<TypicalPart, string> = {
  finger: 'Finger',
  ear: 'Ear',
  hand: 'Grown hand',
  child_hand: 'Child’s hand',
  foot: 'Grown foot',
  baby_foot: 'Baby’s foot',
}

function gelSection(m: MethodBy<'displacement'>): SectionDrawing {
  const half = (m.container === 'round' ? m.diameterMm : Math.min(m.lengthMm, m.widthMm)) / 2
  const fill = m.fillDepthMm
  const wall = wallOf(half * 2) / 2
  const top = fill * 1.12
  const w = m.objectWidthMm / 2
  const tip = fill - m.objectDepthMm
  const round = Math.min(w, m.objectDepthMm * 0.5)
  const held: Point[] = [
    [-w, fill * 1.3],
    [-w, tip + round],
    ...Array.from({ length: 13 }, (_, i): Point => {
      const a = Math.PI + (Math.PI * i) / 12
      return [w * Math.cos(a), tip + round + round * Math.sin(a)]
    }),
    [w, tip + round],
    [w, fill * 1.3],
  ]
  return {
    patches: [
      { stuff: 'mould', rings: [rect(-half - wall, -wall, half + wall, top), rect(-half, 0, half, top + 1)] },
      { stuff: 'gel', rings: [rect(-half, 0, half, fill)] },
      { stuff: 'object', rings: [held] },
    ],
    dimensions: [
      across(-half, half, -wall, 'below'),
      up(half + wall, 0, fill, 'right'),
      up(-half - wall, 0, Math.max(0, tip), 'left'),
      { from: [w, fill * 0.5], to: [half, fill * 0.5], side: 'above', lengthMm: Math.max(0, half - w) },
    ],
    pourLine: { from: [-half, fill], to: [half, fill] },
    trueForm: true,
  }
}

export const displacement: ShownWay<'displacement'> = {
  name: 'Cast through gel',
  how: 'A container of skin-safe gel, and what is held in it.',
  icon: Hand,
  first: {
    by: 'displacement',
    container: 'round',
    diameterMm: 180,
    lengthMm: 180,
    widthMm: 180,
    fillDepthMm: 220,
    object: 'displaced',
    displacedMl: 400,
    typical: 'hand',
    objectWidthMm: 100,
    objectDepthMm: 180,
    gelRatio: 'by_volume',
    gelPowderGPer100Ml: 25,
    gelWorkMin: 3,
  },
  fields: (m, showVolume) => [
    choice('container', 'The container', { round: 'Round', square: 'Square' }),
    ...(m.container === 'round'
      ? [length('diameterMm', 'Across inside')]
      : [length('lengthMm', 'Length inside'), length('widthMm', 'Width inside')]),
    length('fillDepthMm', 'Gel fills to'),
    choice('object', 'What goes in', { displaced: 'By displaced water', typical: 'By typical size' }),
    m.object === 'displaced'
      ? volume('displacedMl', 'Water it displaces')
      : list('typical', 'What it is', PART_WORDS),
    length('objectWidthMm', 'Its width'),
    length('objectDepthMm', 'How deep it reaches'),
    choice('gelRatio', 'The gel is mixed', { by_volume: '1 : 1 by volume', by_label: 'By its label' }),
    ...(m.gelRatio === 'by_label'
      ? [
          {
            is: 'quantity',
            path: 'gelPowderGPer100Ml',
            label: `Powder to ${showVolume(100)} of water`,
            quantity: 'mass',
            min: 1,
            max: 200,
          } as const,
        ]
      : []),
    {
      is: 'quantity',
      path: 'gelWorkMin',
      label: 'Its working time',
      quantity: 'number',
      min: 0.5,
      max: 30,
      suffix: 'min',
      decimals: 1,
    },
  ],
  section: gelSection,
  knowsForm: true,
  hint: () => ({ facts: usualFacts('alginate'), purpose: 'figure' }),
}
