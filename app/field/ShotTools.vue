<script setup lang="ts">
/**
 * One photograph of a print, measured: what it is scaled by, what is measured, and its outline.
 * Usage: <ShotTools :shot :src @change="shot = $event" />
 */
import { Trash, Undo2 } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import {
  KNOWN_SHEETS,
  LEAST_TRACED,
  MARK_KINDS,
  MARK_POINTS,
  curveThrough,
  measure,
  outlineOf,
  snapped,
  type Grey,
  type KnownSheet,
  type MarkKind,
  type Pixel,
  type Scale,
} from '#core/field'
import { useUnits } from '~/parts/show/useUnits'
import { plain } from '~/parts/show/figures'
import type { FindShot } from '~~/shared/finds'
import { isScaled } from '~/parts/field/derive'
import { greyOf } from './grey'
import type { BoardShape } from './PhotoBoard.vue'
import { MARK_HOW, MARK_NAMES, MEASURE_ISSUE_WORDS, SHOT_NOTE_WORDS } from '~/parts/field/words'

const props = defineProps<{ shot: FindShot; src: string }>()
const emit = defineEmits<{ change: [shot: FindShot] }>()
const units = useUnits()
const put = (change: Partial<FindShot>) => emit('change', { ...props.shot, ...change })

const TOOLS = [
  { value: 'scale', label: '1 Scale' },
  { value: 'mark', label: '2 Measure' },
  { value: 'outline', label: '3 Outline' },
] as const
type Tool = (typeof TOOLS)[number]['value']
const tool = ref<Tool>(props.shot.scale ? 'mark' : 'scale')

type ScaledBy = 'rule' | KnownSheet | 'sides'
const SCALES: { value: ScaledBy; label: string }[] = [
  { value: 'rule', label: 'A rule' },
  { value: 'card', label: 'A bank card' },
  { value: 'a4', label: 'A sheet, A4' },
  { value: 'a5', label: 'A sheet, A5' },
  { value: 'sides', label: 'Other sides' },
]
function scaledBy(scale: Scale | null): ScaledBy {
  if (scale?.by !== 'rectangle') return 'rule'
  const known = (Object.keys(KNOWN_SHEETS) as KnownSheet[]).find((sheet) =>
    KNOWN_SHEETS[sheet].every((side, i) => side === scale.sidesMm[i]),
  )
  return known ?? 'sides'
}
const by = ref<ScaledBy>(scaledBy(props.shot.scale))
const lengthMm = ref<number | undefined>(props.shot.scale?.by === 'rule' ? props.shot.scale.lengthMm : 100)
const sides = props.shot.scale?.by === 'rectangle' ? props.shot.scale.sidesMm : ([150, 100] as const)
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
  const { scale } = props.shot
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
  loose.value.length > 0 && tool.value === 'outline' ? loose.value : (props.shot.outline?.points ?? []),
)
function setOutline(points: readonly Pixel[]) {
  if (points.length < LEAST_TRACED) {
    loose.value = [...points]
    if (props.shot.outline) put({ outline: null })
    return
  }
  loose.value = []
  put({ outline: { points: [...points], belowMm: props.shot.outline?.belowMm ?? 0 } })
}
function setMark(index: number, points: readonly Pixel[]) {
  put({ marks: props.shot.marks.map((m, i) => (i === index ? { ...m, points: [...points] } : m)) })
}

let grey: { src: string; found: Promise<Grey | undefined> } | undefined
/** To the edge beside it, where that is wished: along the way from the middle of what was traced. */
async function settledAt(at: Pixel): Promise<Pixel> {
  if (!toEdge.value || outlinePoints.value.length < 2) return at
  if (grey?.src !== props.src)
    grey = { src: props.src, found: greyOf(props.src, props.shot.widthPx, props.shot.heightPx) }
  const found = await grey.found
  const points = outlinePoints.value
  const middle = {
    x: points.reduce((s, p) => s + p.x, 0) / points.length,
    y: points.reduce((s, p) => s + p.y, 0) / points.length,
  }
  const far = Math.hypot(at.x - middle.x, at.y - middle.y)
  if (!found || far === 0) return at
  return snapped(found, at, { x: (at.x - middle.x) / far, y: (at.y - middle.y) / far })
}

async function add(at: Pixel) {
  if (tool.value === 'scale') {
    const most = by.value === 'rule' ? 2 : 4
    const now = scalePoints.value.length >= most ? [] : scalePoints.value
    setScale([...now, at])
  } else if (tool.value === 'outline') setOutline([...outlinePoints.value, await settledAt(at)])
  else if (isScaled(props.shot)) {
    const points = [...loose.value, at]
    if (points.length < MARK_POINTS[kind.value]) {
      loose.value = points
      return
    }
    loose.value = []
    opened.value = props.shot.marks.length
    const mark = { kind: kind.value, name: '', points, belowMm: belowMm.value ?? 0 }
    put({ marks: [...props.shot.marks, mark] })
  }
}
const moveIn = (points: readonly Pixel[], index: number, to: Pixel) =>
  points.map((p, i) => (i === index ? to : p))
function move(index: number, to: Pixel) {
  if (tool.value === 'scale') setScale(moveIn(scalePoints.value, index, to))
  else if (tool.value === 'outline') setOutline(moveIn(outlinePoints.value, index, to))
  else if (loose.value.length > 0) loose.value = moveIn(loose.value, index, to)
  else {
    const mark = props.shot.marks[opened.value]
    if (mark) setMark(opened.value, moveIn(mark.points, index, to))
  }
}
function back() {
  if (loose.value.length > 0) loose.value = loose.value.slice(0, -1)
  else if (tool.value === 'outline') setOutline(outlinePoints.value.slice(0, -1))
}

const shapes = computed<BoardShape[]>(() => [
  { id: 'scale', name: 'Scale', points: scalePoints.value, closed: by.value !== 'rule', tone: 'scale' },
  ...props.shot.marks.map((m, i) => ({
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

/** To the figures that its range leaves any sense in. */
function figureWords(value: number, plusMinus: number, unit: 'mm' | 'deg'): string {
  if (unit === 'deg') return `${plain(value, 0)}° ± ${plain(Math.max(1, plusMinus), 0)}°`
  return `${units.size(Math.round(value * 10) / 10)} ± ${units.size(Math.max(0.1, Math.round(plusMinus * 10) / 10))}`
}
/** To two figures. */
function rounded(value: number): number {
  const step = 10 ** (Math.floor(Math.log10(Math.max(1, value))) - 1)
  return Math.round(value / step) * step
}
const marks = computed(() =>
  props.shot.marks.map((m) => {
    if (!isScaled(props.shot)) return { name: MARK_NAMES[m.kind], words: '', notes: [] as string[] }
    const found = measure(props.shot, m)
    return found.ok
      ? {
          name: MARK_NAMES[m.kind],
          words: figureWords(found.measured.value, found.measured.plusMinus, found.measured.unit),
          notes: found.measured.notes.map((n) => SHOT_NOTE_WORDS[n]),
        }
      : { name: MARK_NAMES[m.kind], words: '', notes: [MEASURE_ISSUE_WORDS[found.issue.code]] }
  }),
)
const traced = computed(() =>
  isScaled(props.shot) && props.shot.outline
    ? outlineOf(props.shot, props.shot.outline.points, props.shot.outline.belowMm)
    : undefined,
)
/** Of the frame that lies within the outline: a print that fills little of it is measured badly. */
const fills = computed(() => {
  const points = outlinePoints.value
  if (points.length < LEAST_TRACED) return undefined
  const twice = points.reduce((s, a, i) => {
    const b = points[(i + 1) % points.length]!
    return s + a.x * b.y - b.x * a.y
  }, 0)
  return (100 * Math.abs(twice / 2)) / (props.shot.widthPx * props.shot.heightPx)
})
const scaleProblem = computed(() => {
  if (!isScaled(props.shot)) return ''
  const [a, b] = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
  ]
  const found = measure(props.shot, { kind: 'length', points: [a, b], belowMm: 0 })
  const isOfScale = !found.ok && !['beyond_horizon', 'points_too_near'].includes(found.issue.code)
  return isOfScale ? MEASURE_ISSUE_WORDS[found.issue.code] : ''
})
const asked = computed(() => {
  if (tool.value === 'scale')
    return by.value === 'rule'
      ? 'Tap both marks on the rule, as far apart as they are.'
      : 'Tap its four corners, one after the other. It must lie flat beside the print.'
  if (!isScaled(props.shot)) return 'First its scale.'
  if (tool.value === 'outline')
    return 'Tap along the edge of the print, all round; close points at tight places.'
  return MARK_HOW[kind.value]
})
</script>

<template>
  <div class="tools">
    <ChoicePills v-model="tool" label="What to do on the photograph" :options="TOOLS" />
    <div v-if="tool === 'scale'" class="row">
      <LabelledSelect v-model="by" label="In the picture lies" :options="SCALES" />
      <QuantityField
        v-if="by === 'rule'"
        v-model="lengthMm"
        kind="length"
        label="Between the marks"
        :min="5"
        :max="5000"
      />
      <template v-else-if="by === 'sides'">
        <QuantityField v-model="sideMm" kind="length" label="One side" :min="10" :max="5000" />
        <QuantityField v-model="otherMm" kind="length" label="The other" :min="10" :max="5000" />
      </template>
    </div>
    <div v-else-if="tool === 'mark'" class="row">
      <LabelledSelect
        v-model="kind"
        label="What is measured"
        :options="MARK_KINDS.map((value) => ({ value, label: MARK_NAMES[value] }))"
      />
      <QuantityField v-model="belowMm" kind="length" label="It lies lower by" :min="0" :max="300" />
    </div>
    <div v-else class="row">
      <label class="check"><input v-model="toEdge" type="checkbox" /> To the edge beside it</label>
      <Button severity="secondary" :disabled="outlinePoints.length === 0" @click="back">
        <Undo2 :size="18" aria-hidden="true" /> Last point back
      </Button>
      <span v-if="fills !== undefined" class="soft">It fills {{ plain(fills, 0) }} % of the frame.</span>
    </div>
    <p class="asked" role="status">{{ asked }}</p>
    <p v-if="scaleProblem" class="failure" role="alert">{{ scaleProblem }}</p>
    <PhotoBoard
      :src="src"
      :width-px="shot.widthPx"
      :height-px="shot.heightPx"
      :shapes="shapes"
      :active="tool"
      label="Photograph of the print"
      @add="add"
      @move="move"
    />
    <ul v-if="marks.length > 0" class="marks">
      <li v-for="(m, i) in marks" :key="i" :class="{ opened: tool === 'mark' && i === opened }">
        <button type="button" class="name" @click="((tool = 'mark'), (opened = i))">
          <span>{{ m.name }}</span> <b class="figure">{{ m.words || '–' }}</b>
        </button>
        <Button
          severity="secondary"
          :aria-label="`Take ${m.name.toLowerCase()} ${i + 1} away`"
          @click="put({ marks: shot.marks.filter((_, j) => j !== i) })"
          ><Trash :size="18"
        /></Button>
        <p v-for="note in m.notes" :key="note" class="soft small">{{ note }}</p>
      </li>
    </ul>
    <p v-if="traced?.ok">
      Within the outline
      <b
        >{{ units.area(traced.outline.areaMm2) }} ±
        {{ units.area(rounded(traced.outline.areaPlusMinusMm2)) }}</b
      >, {{ units.size(Math.round(traced.outline.lengthMm)) }} long,
      {{ units.size(Math.round(traced.outline.widthMm)) }} wide.
    </p>
    <p v-else-if="traced" class="failure" role="alert">{{ MEASURE_ISSUE_WORDS[traced.issue.code] }}</p>
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  gap: var(--s3);
  min-width: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: end;
}
.row > * {
  min-width: 9rem;
}
.check {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
  min-height: 44px;
  font-weight: 600;
}
.check input {
  width: 24px;
  height: 24px;
}
.asked {
  font-weight: 600;
}
.marks {
  list-style: none;
  margin: 0;
  padding: 0;
}
.marks li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 0 var(--s2);
  border-top: 2px solid var(--line);
  padding: var(--s1) 0;
}
.marks p {
  grid-column: 1 / -1;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s3);
  min-height: 44px;
  border: 0;
  background: transparent;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.name .figure {
  font-size: 1.35rem;
}
.opened .name span {
  text-decoration: underline;
}
</style>
