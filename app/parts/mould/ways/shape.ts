import { Box } from '@lucide/vue'
import { SHAPE_KINDS, halfSection, type CavityShape, type Point } from '#core/mould'
import { across, blockWith, mirrored, rect, up, wallOf, type SectionDrawing } from './drawing'
import { length, type MethodField } from './fields'
import type { ShownWay } from './way'

const SHAPE_WORDS: Record<CavityShape['kind'], string> = {
  box: 'Box',
  slab: 'Slab',
  cylinder: 'Cylinder',
  frustum: 'Cone, cut off',
  bowl: 'Bowl',
  footed_bowl: 'Bowl with foot',
  ring: 'Ring',
  half_round: 'Half-round',
  prism: 'Regular prism',
}

/** Starting figures of each form: a size one holds in two hands. */
export const FIRST_SHAPES: { [K in CavityShape['kind']]: Extract<CavityShape, { kind: K }> } = {
  box: { kind: 'box', lengthMm: 200, widthMm: 150, depthMm: 40 },
  slab: { kind: 'slab', lengthMm: 400, widthMm: 300, thicknessMm: 45, cornerRadiusMm: 20 },
  cylinder: { kind: 'cylinder', diameterMm: 150, depthMm: 40 },
  frustum: { kind: 'frustum', topDiameterMm: 180, bottomDiameterMm: 120, depthMm: 60 },
  bowl: { kind: 'bowl', rimDiameterMm: 180, depthMm: 60 },
  footed_bowl: { kind: 'footed_bowl', rimDiameterMm: 200, footDiameterMm: 80, depthMm: 70 },
  ring: { kind: 'ring', outerDiameterMm: 200, innerDiameterMm: 120, depthMm: 40 },
  half_round: { kind: 'half_round', lengthMm: 300, diameterMm: 100, depthMm: 50 },
  prism: { kind: 'prism', sides: 6, sideMm: 70, depthMm: 40 },
}
export const shapeOptions = SHAPE_KINDS.map((value) => ({ value, label: SHAPE_WORDS[value] }))

function shapeFields(shape: CavityShape): MethodField[] {
  const depth = length('shape.depthMm', 'Depth to the fill')
  switch (shape.kind) {
    case 'box':
      return [length('shape.lengthMm', 'Length inside'), length('shape.widthMm', 'Width inside'), depth]
    case 'slab':
      return [
        length('shape.lengthMm', 'Length inside'),
        length('shape.widthMm', 'Width inside'),
        length('shape.thicknessMm', 'Thickness'),
        length('shape.cornerRadiusMm', 'Corner radius', 0),
      ]
    case 'cylinder':
      return [length('shape.diameterMm', 'Across inside'), depth]
    case 'frustum':
      return [
        length('shape.topDiameterMm', 'Across the top'),
        length('shape.bottomDiameterMm', 'Across the bottom', 0),
        depth,
      ]
    case 'bowl':
      return [length('shape.rimDiameterMm', 'Across the rim'), depth]
    case 'footed_bowl':
      return [
        length('shape.rimDiameterMm', 'Across the rim'),
        length('shape.footDiameterMm', 'Across the foot'),
        depth,
      ]
    case 'ring':
      return [
        length('shape.outerDiameterMm', 'Across outside'),
        length('shape.innerDiameterMm', 'Across the hole'),
        depth,
      ]
    case 'half_round':
      return [length('shape.lengthMm', 'Length inside'), length('shape.diameterMm', 'Across'), depth]
    case 'prism':
      return [
        {
          is: 'quantity',
          path: 'shape.sides',
          label: 'Sides',
          quantity: 'number',
          min: 3,
          max: 24,
          decimals: 0,
        },
        length('shape.sideMm', 'Length of a side'),
        depth,
      ]
  }
}

function shapeSection(shape: CavityShape): SectionDrawing {
  const half = halfSection(shape)
  const halfWidth = Math.max(...half.map(([x]) => x))
  const rim = Math.max(...half.map(([, y]) => y))
  const beside = halfWidth + wallOf(Math.max(halfWidth * 2, rim))
  const dims = [across(-halfWidth, halfWidth, rim, 'above'), up(beside, 0, rim, 'right')]
  if (shape.kind === 'ring') {
    const r = shape.innerDiameterMm / 2
    const rings = [half.map(([x, y]): Point => [x, y]), half.map(([x, y]): Point => [-x, y])]
    const wall = wallOf(halfWidth * 2)
    return {
      patches: [
        { stuff: 'mould', rings: [rect(-halfWidth - wall, -wall, halfWidth + wall, rim), ...rings] },
        { stuff: 'plaster', rings },
      ],
      dimensions: [...dims, across(-r, r, 0, 'below')],
      pourLine: { from: [-halfWidth, rim], to: [halfWidth, rim] },
      trueForm: true,
    }
  }
  const cavity = mirrored(half)
  if (shape.kind === 'frustum' && shape.bottomDiameterMm > 0)
    dims.push(across(-shape.bottomDiameterMm / 2, shape.bottomDiameterMm / 2, 0, 'below'))
  if (shape.kind === 'footed_bowl')
    dims.push(across(-shape.footDiameterMm / 2, shape.footDiameterMm / 2, 0, 'below'))
  return blockWith(cavity, halfWidth, rim, dims)
}

export const shape: ShownWay<'shape'> = {
  name: 'Shape',
  how: 'Inside measurements, depth to the pour line.',
  icon: Box,
  first: { by: 'shape', shape: FIRST_SHAPES.box },
  fields: (m) => shapeFields(m.shape),
  section: (m) => shapeSection(m.shape),
  knowsForm: true,
  hint: (m) => (m.shape.kind === 'slab' ? { purpose: 'slab' } : {}),
}
