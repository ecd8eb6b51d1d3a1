import { Footprints } from '@lucide/vue'
import type { GroundFirmness } from '#core/field'
import { usualFacts, type Point } from '#core/mould'
import { across, rect, up, type SectionDrawing } from './drawing'
import { choice, length } from './fields'
import type { MethodBy, ShownWay } from './way'

export const GROUND_WORDS: Record<GroundFirmness, string> = {
  firm: 'Firm',
  damp: 'Damp sand',
  soft: 'Soft mud',
}

export function groundSection(m: MethodBy<'ground'>): SectionDrawing {
  const half = (m.dam === 'ring' ? m.diameterMm : m.lengthMm) / 2
  const printHalf = half * Math.sqrt(Math.max(0.02, m.printSharePct / 100)) * 0.94
  const depth = m.printDepthMm
  const bumps = 5
  // A rippled floor to the print's depth: what the plaster will run into.
  const floor: Point[] = [[-half, 0]]
  for (let i = 0; i <= bumps * 8; i++) {
    const t = i / (bumps * 8)
    floor.push([-printHalf + 2 * printHalf * t, (-depth * (1 - Math.cos(2 * Math.PI * bumps * t))) / 2])
  }
  floor.push([half, 0])
  const margin = half * 0.3
  const deep = -depth - half * 0.25
  const dam = Math.max(3, half * 0.03)
  const damTop = m.coverMm * 1.25 + 4
  return {
    patches: [
      {
        stuff: 'ground',
        rings: [
          [[-half - margin, 0], ...floor, [half + margin, 0], [half + margin, deep], [-half - margin, deep]],
        ],
      },
      { stuff: 'plaster', rings: [[...floor, [half, m.coverMm], [-half, m.coverMm]]] },
      {
        stuff: 'dam',
        rings: [rect(-half - dam, -half * 0.08, -half, damTop), rect(half, -half * 0.08, half + dam, damTop)],
      },
    ],
    dimensions: [
      across(-half, half, damTop, 'above'),
      up(half + dam, 0, m.coverMm, 'right'),
      ...(depth > 0 ? [up(-half - dam, -depth, 0, 'left')] : []),
    ],
    pourLine: { from: [-half, m.coverMm], to: [half, m.coverMm] },
    trueForm: true,
  }
}

export const ground: ShownWay<'ground'> = {
  name: 'Print in the ground',
  how: 'The dam, the print, and how much plaster over its highest point.',
  icon: Footprints,
  first: {
    by: 'ground',
    dam: 'ring',
    diameterMm: 200,
    lengthMm: 250,
    widthMm: 200,
    printDepthMm: 15,
    printSharePct: 40,
    coverMm: 15,
    ground: 'firm',
  },
  fields: (m) => [
    choice('dam', 'The dam', { ring: 'Ring', frame: 'Frame' }),
    ...(m.dam === 'ring'
      ? [length('diameterMm', 'Across the ring')]
      : [length('lengthMm', 'Frame, length'), length('widthMm', 'Frame, width')]),
    length('printDepthMm', 'Deepest of the print', 0),
    {
      is: 'quantity',
      path: 'printSharePct',
      label: 'Print takes up',
      quantity: 'number',
      min: 0,
      max: 100,
      suffix: '% of it',
      decimals: 0,
    },
    length('coverMm', 'Cover over the highest point'),
    choice('ground', 'The ground', GROUND_WORDS),
  ],
  section: groundSection,
  knowsForm: true,
  hint: () => ({ facts: usualFacts('sand_soil'), purpose: 'print' }),
}
