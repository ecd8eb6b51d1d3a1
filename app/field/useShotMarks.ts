import { computed, ref, watch, type Ref } from 'vue'
import {
  KNOWN_SHEETS,
  LEAST_TRACED,
  MARK_POINTS,
  curveThrough,
  outwardAt,
  snapped,
  type Grey,
  type KnownSheet,
  type MarkKind,
  type Pixel,
  type Scale,
} from '#core/field'
import type { FindShot } from '~~/shared/finds'
import { isScaled } from '~/parts/field/derive'
import { MARK_NAMES } from '~/parts/field/words'
import { greyOf } from './grey'
import type { BoardShape } from './board'

export const TOOLS = [
  { value: 'scale', label: '1 Scale' },
  { value: 'mark', label: '2 Measure' },
  { value: 'outline', label: '3 Outline' },
] as const
type Tool = (typeof TOOLS)[number]['value']

export type ScaledBy = 'rule' | KnownSheet | 'sides'
function scaledBy(scale: Scale | null): ScaledBy {
  if (scale?.by !== 'rectangle') return 'rule'
  const known = (Object.keys(KNOWN_SHEETS) as KnownSheet[]).find((sheet) =>
    KNOWN_SHEETS[sheet].every((side, i) => side === scale.sidesMm[i]),
  )
  return known ?? 'sides'
}

/**
 * What is set on a photograph, point by point: its scale, what is measured, its outline. A thing that is not whole yet stays
 * here; whole it is put.
 */
export function useShotMarks(
  shot: Readonly<Ref<FindShot>>,
  src: Readonly<Ref<string>>,
  put: (change: Partial<FindShot>) => void,
) {
  const tool = ref<Tool>(shot.value.scale ? 'mark' : 'scale')

  const by = ref<ScaledBy>(scaledBy(shot.value.scale))
  const lengthMm = ref<number | undefined>(shot.value.scale?.by === 'rule' ? shot.value.scale.lengthMm : 100)
  const sides = shot.value.scale?.by === 'rectangle' ? shot.value.scale.sidesMm : ([150, 100] as const)
  const sideMm = ref<number | undefined>(sides[0])
  const otherMm = ref<number | undefined>(sides[1])
  /** Points of the thing that is not whole yet. */
  const loose = ref<Pixel[]>([])
  const belowMm = ref<number | undefined>(0)
  const kind = ref<MarkKind>('length')
  const opened = ref(0)
  const toEdge = ref(false)
  watch([tool, by, kind], () => (loose.value = []))

  const scalePoints = computed<readonly Pixel[]>(() => {
    const { scale } = shot.value
    if (loose.value.length > 0 || !scale || scaledBy(scale) !== by.value) return loose.value
    return scale.by === 'rule' ? scale.marks : scale.by === 'rectangle' ? scale.corners : []
  })
  function scaleOf(points: readonly Pixel[]): Scale | undefined {
    if (by.value === 'rule') {
      const [a, b] = points
      return a && b && lengthMm.value ? { by: 'rule', marks: [a, b], lengthMm: lengthMm.value } : undefined
    }
    if (points.length !== 4) return undefined
    const sidesMm =
      by.value !== 'sides'
        ? KNOWN_SHEETS[by.value]
        : sideMm.value && otherMm.value
          ? ([sideMm.value, otherMm.value] as const)
          : undefined
    return sidesMm && { by: 'rectangle', corners: [...points], sidesMm: [...sidesMm] }
  }
  function setScale(points: readonly Pixel[]) {
    const scale = scaleOf(points)
    loose.value = scale ? [] : [...points]
    if (scale) put({ scale: scale as FindShot['scale'] })
  }
  watch([lengthMm, sideMm, otherMm], () => scalePoints.value.length > 0 && setScale(scalePoints.value))

  const outlinePoints = computed(() =>
    loose.value.length > 0 && tool.value === 'outline' ? loose.value : (shot.value.outline?.points ?? []),
  )
  function setOutline(points: readonly Pixel[]) {
    if (points.length < LEAST_TRACED) {
      loose.value = [...points]
      if (shot.value.outline) put({ outline: null })
      return
    }
    loose.value = []
    put({ outline: { points: [...points], belowMm: shot.value.outline?.belowMm ?? 0 } })
  }
  function setMark(index: number, points: readonly Pixel[]) {
    put({ marks: shot.value.marks.map((m, i) => (i === index ? { ...m, points: [...points] } : m)) })
  }

  let grey: { src: string; found: Promise<Grey | undefined> } | undefined
  /** To the edge beside it, where that is wished: along the way from the middle of what was traced. */
  async function settledAt(at: Pixel): Promise<Pixel> {
    if (!toEdge.value || outlinePoints.value.length < 2) return at
    if (grey?.src !== src.value)
      grey = { src: src.value, found: greyOf(src.value, shot.value.widthPx, shot.value.heightPx) }
    const found = await grey.found
    const out = outwardAt(outlinePoints.value, at)
    return found && out ? snapped(found, at, out) : at
  }

  async function add(at: Pixel) {
    if (tool.value === 'scale') {
      const most = by.value === 'rule' ? 2 : 4
      const now = scalePoints.value.length >= most ? [] : scalePoints.value
      setScale([...now, at])
    } else if (tool.value === 'outline') {
      const settled = await settledAt(at)
      // Others may have been set meanwhile.
      setOutline([...outlinePoints.value, settled])
    } else if (isScaled(shot.value)) {
      const points = [...loose.value, at]
      if (points.length < MARK_POINTS[kind.value]) {
        loose.value = points
        return
      }
      loose.value = []
      opened.value = shot.value.marks.length
      const mark = { kind: kind.value, name: '', points, belowMm: belowMm.value ?? 0 }
      put({ marks: [...shot.value.marks, mark] })
    }
  }
  const moveIn = (points: readonly Pixel[], index: number, to: Pixel) =>
    points.map((p, i) => (i === index ? to : p))
  function move(index: number, to: Pixel) {
    if (tool.value === 'scale') setScale(moveIn(scalePoints.value, index, to))
    else if (tool.value === 'outline') setOutline(moveIn(outlinePoints.value, index, to))
    else if (loose.value.length > 0) loose.value = moveIn(loose.value, index, to)
    else {
      const mark = shot.value.marks[opened.value]
      if (mark) setMark(opened.value, moveIn(mark.points, index, to))
    }
  }
  function back() {
    if (loose.value.length > 0) loose.value = loose.value.slice(0, -1)
    else if (tool.value === 'outline') setOutline(outlinePoints.value.slice(0, -1))
  }

  const shapes = computed<BoardShape[]>(() => [
    { id: 'scale', name: 'Scale', points: scalePoints.value, closed: by.value !== 'rule', tone: 'scale' },
    ...shot.value.marks.map((m, i) => ({
      id: loose.value.length === 0 && i === opened.value ? 'mark' : `mark ${i}`,
      name: MARK_NAMES[m.kind],
      points: m.points,
      closed: false,
      tone: 'mark' as const,
    })),
    ...(tool.value === 'mark' && loose.value.length > 0
      ? [
          {
            id: 'mark',
            name: MARK_NAMES[kind.value],
            points: loose.value,
            closed: false,
            tone: 'mark' as const,
          },
        ]
      : []),
    {
      id: 'outline',
      name: 'Outline',
      points: outlinePoints.value,
      line:
        outlinePoints.value.length >= LEAST_TRACED ? curveThrough(outlinePoints.value) : outlinePoints.value,
      closed: outlinePoints.value.length >= LEAST_TRACED,
      tone: 'outline',
    },
  ])

  return {
    tool,
    by,
    lengthMm,
    sideMm,
    otherMm,
    belowMm,
    kind,
    opened,
    toEdge,
    outlinePoints,
    shapes,
    add,
    move,
    back,
  }
}
