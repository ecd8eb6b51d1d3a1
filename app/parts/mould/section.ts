import {
  flattenProfile,
  halfSection,
  type CavityDescription,
  type CavityShape,
  type Point,
  type VolumeMethod,
} from '#core/mould'

/** What a patch of a drawn section is made of; decides its colour and pattern. */
export type Stuff =
  'mould' | 'plaster' | 'water' | 'grains' | 'gel' | 'object' | 'ground' | 'set' | 'board' | 'dam'

export interface Patch {
  stuff: Stuff
  /** Closed rings of points, mm, y up; the even-odd rule cuts holes. */
  rings: Point[][]
}

export interface Dimension {
  from: Point
  to: Point
  /** Which side the line stands off to. */
  side: 'left' | 'right' | 'below' | 'above'
  lengthMm: number
}

/** A section through the middle of a mould, to scale, mm, y up. */
export interface SectionDrawing {
  patches: Patch[]
  dimensions: Dimension[]
  /** Top of what is poured: the pour line runs here. */
  pourLine: { from: Point; to: Point } | undefined
  /** False where only a volume is known and the form is a stand-in. */
  trueForm: boolean
}

const rect = (x0: number, y0: number, x1: number, y1: number): Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]
const mirrored = (half: readonly Point[]): Point[] => [
  ...half,
  ...[...half].reverse().map(([x, y]): Point => [-x, y]),
]

/** Walls are drawn a tenth of the size thick, within reason: they hold the picture, they are not measured. */
const wallOf = (sizeMm: number) => Math.min(40, Math.max(4, sizeMm * 0.08))

const across = (from: number, to: number, y: number, side: 'below' | 'above'): Dimension => ({
  from: [from, y],
  to: [to, y],
  side,
  lengthMm: Math.abs(to - from),
})
const up = (x: number, from: number, to: number, side: 'left' | 'right'): Dimension => ({
  from: [x, from],
  to: [x, to],
  side,
  lengthMm: Math.abs(to - from),
})

/** A cavity in a block of mould, filled to its rim. */
function blockWith(
  cavity: Point[],
  halfWidthMm: number,
  rimMm: number,
  dimensions: Dimension[],
): SectionDrawing {
  const wall = wallOf(Math.max(halfWidthMm * 2, rimMm))
  return {
    patches: [
      { stuff: 'mould', rings: [rect(-halfWidthMm - wall, -wall, halfWidthMm + wall, rimMm), cavity] },
      { stuff: 'plaster', rings: [cavity] },
    ],
    dimensions,
    pourLine: pourLineAt(cavity, rimMm),
    trueForm: true,
  }
}

/** From the leftmost to the rightmost place of the ring at this height. */
function pourLineAt(ring: readonly Point[], heightMm: number): { from: Point; to: Point } {
  const at = ring.filter(([, y]) => Math.abs(y - heightMm) < 1e-6).map(([x]) => x)
  const xs = at.length > 0 ? at : ring.map(([x]) => x)
  return { from: [Math.min(...xs), heightMm], to: [Math.max(...xs), heightMm] }
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

/** Cuts a line off at a height, where it climbs through it. */
function below(line: readonly Point[], levelMm: number): Point[] {
  const kept: Point[] = []
  for (const [i, p] of line.entries()) {
    const before = line[i - 1]
    if (before && before[1] < levelMm !== p[1] < levelMm && before[1] !== p[1]) {
      const t = (levelMm - before[1]) / (p[1] - before[1])
      kept.push([before[0] + t * (p[0] - before[0]), levelMm])
    }
    if (p[1] <= levelMm) kept.push(p)
  }
  return kept
}

function profileSection(m: Extract<VolumeMethod, { by: 'profile' }>): SectionDrawing {
  const outer = flattenProfile(m.outer)
  const inner = flattenProfile(m.inner)
  const halfWidth = Math.max(1, ...outer.map(([x]) => x))
  const floor = Math.min(...outer.map(([, y]) => y))
  const rim = outer.at(-1)?.[1] ?? 0
  const level = m.fillHeightMm === null ? rim : Math.min(rim, floor + m.fillHeightMm)
  const wall = wallOf(Math.max(halfWidth * 2, rim - floor))
  const onAxis = (line: Point[]): Point[] => (line[0] && line[0][0] > 0 ? [[0, line[0][1]], ...line] : line)
  const cavity = mirrored(onAxis(outer))
  const fill = mirrored(onAxis(below(outer, level)))
  const core = inner.length > 1 ? [mirrored(onAxis(inner))] : []
  const filledCore = inner.length > 1 ? [mirrored(onAxis(below(inner, level)))] : []
  return {
    patches: [
      { stuff: 'mould', rings: [rect(-halfWidth - wall, floor - wall, halfWidth + wall, rim), cavity] },
      { stuff: 'plaster', rings: [fill, ...filledCore] },
      ...(core.length > 0 ? [{ stuff: 'mould' as const, rings: core }] : []),
    ],
    dimensions: [
      across(-halfWidth, halfWidth, floor - wall, 'below'),
      up(halfWidth + wall, floor, rim, 'right'),
    ],
    pourLine: pourLineAt(fill, level),
    trueForm: true,
  }
}

function groundSection(m: Extract<VolumeMethod, { by: 'ground' }>): SectionDrawing {
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

function gelSection(m: Extract<VolumeMethod, { by: 'displacement' }>): SectionDrawing {
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

function shellSection(m: Extract<VolumeMethod, { by: 'shell' }>): SectionDrawing {
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

function layerSection(m: Extract<VolumeMethod, { by: 'top_up' }>): SectionDrawing {
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

/** Only the volume is known: a plain tray of that volume, drawn as a stand-in. */
function standIn(volumeMl: number, stuff: Stuff): SectionDrawing {
  const depth = Math.cbrt(volumeMl * 1000) * 0.6
  const half = Math.sqrt((volumeMl * 1000) / depth) / 2
  const soft = half * 0.25
  const cavity = mirrored([
    [0, 0],
    [half - soft, 0],
    ...Array.from({ length: 7 }, (_, i): Point => {
      const a = (Math.PI / 2) * (i / 6)
      return [half - soft + soft * Math.sin(a), soft * (1 - Math.cos(a))]
    }),
    [half, depth],
  ])
  const block = blockWith(cavity, half, depth, [])
  return { ...block, patches: [block.patches[0]!, { stuff, rings: [cavity] }], trueForm: false }
}

/** Draws one way of finding a volume. `volumeMl` sizes the stand-in where the form is not known. */
export function sectionOf(method: VolumeMethod, volumeMl: number): SectionDrawing {
  switch (method.by) {
    case 'shape':
      return shapeSection(method.shape)
    case 'profile':
      return profileSection(method)
    case 'ground':
      return groundSection(method)
    case 'displacement':
      return gelSection(method)
    case 'shell':
      return shellSection(method)
    case 'top_up':
      return layerSection(method)
    case 'water_fill':
      return standIn(volumeMl, 'water')
    case 'dry_fill':
      return standIn(volumeMl, 'grains')
    case 'known':
    case 'weighed_cast':
      return standIn(volumeMl, 'plaster')
  }
}

const FORMLESS: VolumeMethod['by'][] = ['known', 'water_fill', 'dry_fill', 'weighed_cast']

/** The method that shows a mould's form best: its first part, or the second way where only that knows the form. */
export function pictured(volume: CavityDescription): VolumeMethod {
  const first = volume.parts[0]!.method
  return FORMLESS.includes(first.by) && volume.check ? volume.check : first
}
