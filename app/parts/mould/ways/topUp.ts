import { Layers2 } from '@lucide/vue'
import type { LayerBelow } from '#core/mould'
import { across, rect, up, wallOf, type SectionDrawing } from './drawing'
import { area, choice, length } from './fields'
import type { MethodBy, ShownWay } from './way'

const BELOW_WORDS: Record<LayerBelow, string> = {
  still_soft: 'Still soft',
  set_today: 'Set, still damp',
  dry: 'Dry',
}

function layerSection(m: MethodBy<'top_up'>): SectionDrawing {
  const half =
    (m.outline === 'rectangle' ? m.lengthMm : m.outline === 'round' ? m.diameterMm : Math.sqrt(m.areaMm2)) / 2
  const belowMm = Math.max(m.depthMm * 1.2, half * 0.12)
  const top = belowMm + m.depthMm
  const wall = wallOf(half * 2) / 2
  return {
    patches: [
      {
        stuff: 'mould',
        rings: [rect(-half - wall, -wall, half + wall, top * 1.1), rect(-half, 0, half, top * 1.1 + 1)],
      },
      { stuff: 'set', rings: [rect(-half, 0, half, belowMm)] },
      { stuff: 'plaster', rings: [rect(-half, belowMm, half, top)] },
    ],
    dimensions: [across(-half, half, -wall, 'below'), up(half + wall, belowMm, top, 'right')],
    pourLine: { from: [-half, top], to: [half, top] },
    trueForm: m.outline !== 'area',
  }
}

export const topUp: ShownWay<'top_up'> = {
  name: 'Second layer',
  how: 'Area and depth of what goes on top.',
  icon: Layers2,
  first: {
    by: 'top_up',
    outline: 'rectangle',
    lengthMm: 300,
    widthMm: 200,
    diameterMm: 250,
    areaMm2: 60_000,
    depthMm: 10,
    below: 'set_today',
  },
  fields: (m) => [
    choice('outline', 'The outline', { rectangle: 'Rectangle', round: 'Round', area: 'By its area' }),
    ...(m.outline === 'rectangle'
      ? [length('lengthMm', 'Length inside'), length('widthMm', 'Width inside')]
      : m.outline === 'round'
        ? [length('diameterMm', 'Across inside')]
        : [area('areaMm2', 'Area')]),
    length('depthMm', 'Depth of the layer'),
    choice('below', 'The layer below is', BELOW_WORDS),
  ],
  section: layerSection,
  knowsForm: true,
  hint: () => ({}),
}
