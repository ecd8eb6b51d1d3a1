import { Spline } from '@lucide/vue'
import { flattenProfile, type Point } from '#core/mould'
import { across, mirrored, pourLineAt, rect, up, wallOf, type SectionDrawing } from './drawing'
import type { MethodBy, ShownWay } from './way'

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

function profileSection(m: MethodBy<'profile'>): SectionDrawing {
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

export const profile: ShownWay<'profile'> = {
  name: 'Turned profile',
  how: 'Draw half of a round form; it is turned about its axis.',
  icon: Spline,
  first: {
    by: 'profile',
    outer: [
      { radiusMm: 0, heightMm: 0, smooth: false },
      { radiusMm: 40, heightMm: 0, smooth: false },
      { radiusMm: 62, heightMm: 35, smooth: true },
      { radiusMm: 70, heightMm: 80, smooth: false },
    ],
    inner: [],
    fillHeightMm: null,
  },
  fields: () => [],
  section: profileSection,
  knowsForm: true,
  hint: () => ({}),
}
