import { CircleDot } from '@lucide/vue'
import { usualFacts, type Point } from '#core/mould'
import { across, mirrored, rect, up, type SectionDrawing } from './drawing'
import { area, choice, length, volume } from './fields'
import type { MethodBy, ShownWay } from './way'

function shellSection(m: MethodBy<'shell'>): SectionDrawing {
  const t = m.thicknessMm
  const side = Math.sqrt(m.areaMm2)
  const half = m.object === 'block' ? m.lengthMm / 2 : m.object === 'area' ? side / 2 : m.diameterMm / 2
  const height = m.object === 'ball' ? half : m.object === 'area' ? half * 0.15 : m.heightMm
  const base = m.onBoard || m.object === 'area' ? 0 : t
  const quarter = (cx: number, cy: number, r: number): Point[] =>
    Array.from({ length: 13 }, (_, i): Point => {
      const a = (Math.PI / 2) * (i / 12)
      return [cx + r * Math.cos(a), cy + r * Math.sin(a)]
    })
  const ball = m.object === 'ball'
  const whole = ball && !m.onBoard
  const innerHalf: Point[] = ball
    ? [[half, whole ? base + half : 0], ...quarter(0, whole ? base + half : 0, half)]
    : [
        [half, base],
        [half, base + height],
        [0, base + height],
      ]
  const outerHalf: Point[] = ball
    ? quarter(0, whole ? base + half : 0, half + t)
    : [[half + t, base], ...quarter(half, base + height, t), [0, base + height + t]]
  const low = (points: Point[], r: number): Point[] =>
    whole
      ? [...quarter(0, 0, r).map(([x, y]): Point => [x, base + half - y])].reverse().concat(points)
      : base > 0
        ? [...quarter(half, 0, t).map(([x, y]): Point => [x, base - y])].reverse().concat(points)
        : points
  const outer = mirrored(low(outerHalf, half + t))
  const object = mirrored(whole ? low(innerHalf, half) : innerHalf)
  const board = Math.max(6, half * 0.08)
  const top = Math.max(...outer.map(([, y]) => y))
  return {
    patches: [
      ...(base === 0
        ? [{ stuff: 'board' as const, rings: [rect(-half - t - board, -board, half + t + board, 0)] }]
        : []),
      { stuff: 'plaster', rings: [outer, object] },
      { stuff: 'object', rings: [object] },
    ],
    dimensions: [
      across(-half, half, base === 0 ? -board : 0, 'below'),
      {
        from: [half, base + height * 0.45],
        to: [half + t, base + height * 0.45],
        side: 'above',
        lengthMm: t,
      },
      up(half + t + board, 0, top, 'right'),
    ],
    pourLine: undefined,
    trueForm: m.object !== 'area',
  }
}

export const shell: ShownWay<'shell'> = {
  name: 'Even shell',
  how: 'A coat of even thickness around an object.',
  icon: CircleDot,
  first: {
    by: 'shell',
    object: 'round',
    lengthMm: 120,
    widthMm: 120,
    diameterMm: 120,
    heightMm: 90,
    areaMm2: 50_000,
    thicknessMm: 65,
    onBoard: true,
    layerMm: 22,
    batchMl: 2000,
  },
  fields: (m) => [
    choice('object', 'Around', { block: 'Block', round: 'Round', ball: 'Ball', area: 'By its area' }),
    ...(m.object === 'block'
      ? [length('lengthMm', 'Its length'), length('widthMm', 'Its width')]
      : m.object === 'area'
        ? [area('areaMm2', 'Area to cover')]
        : [length('diameterMm', 'Its diameter')]),
    ...(m.object === 'block' || m.object === 'round' ? [length('heightMm', 'Its height')] : []),
    length('thicknessMm', 'Thickness of the shell', 0, 500),
    length('layerMm', 'One layer', 1, 500),
    volume('batchMl', 'One bowl gives', 50, 100_000),
    ...(m.object === 'area' ? [] : [choice('onBoard', 'It stands', { true: 'On a board', false: 'Free' })]),
  ],
  section: shellSection,
  knowsForm: true,
  hint: () => ({ facts: usualFacts('wet_clay'), purpose: 'shell' }),
}
