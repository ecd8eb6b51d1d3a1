<script setup lang="ts">
/**
 * One photograph of a print, measured: what it is scaled by, what is measured, and its outline.
 * Usage: <ShotTools :shot :src :name="print.name" @change="shot = $event" />
 */
import { Undo2 } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, toRef } from 'vue'
import { LEAST_TRACED, MARK_KINDS, planeOf, shareOfFrame } from '#core/field'
import { plain } from '~/parts/show/figures'
import type { FindShot } from '~~/shared/finds'
import { isScaled } from '~/parts/field/derive'
import { MARK_HOW, MARK_NAMES, MEASURE_ISSUE_WORDS } from '~/parts/field/words'
import { TOOLS, useShotMarks, type ScaledBy } from './useShotMarks'

const props = defineProps<{ shot: FindShot; src: string; name: string }>()
const emit = defineEmits<{ change: [shot: FindShot] }>()
const put = (change: Partial<FindShot>) => emit('change', { ...props.shot, ...change })
const {
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
} = useShotMarks(toRef(props, 'shot'), toRef(props, 'src'), put)

const SCALES: { value: ScaledBy; label: string }[] = [
  { value: 'rule', label: 'A rule' },
  { value: 'card', label: 'A bank card' },
  { value: 'a4', label: 'A sheet, A4' },
  { value: 'a5', label: 'A sheet, A5' },
  { value: 'sides', label: 'Other sides' },
]

const fills = computed(() =>
  outlinePoints.value.length < LEAST_TRACED ? undefined : shareOfFrame(props.shot, outlinePoints.value),
)
const scaleProblem = computed(() => {
  const found = props.shot.scale && planeOf(props.shot.scale)
  return found && !found.ok ? MEASURE_ISSUE_WORDS[found.issue.code] : ''
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
      <QuantityField
        :model-value="shot.cameraHeightMm ?? undefined"
        kind="length"
        label="Camera over it, if known"
        :min="50"
        :max="20000"
        optional
        @update:model-value="put({ cameraHeightMm: $event ?? null })"
      />
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
      <label class="tick-line"><input v-model="toEdge" type="checkbox" /> To the edge beside it</label>
      <Button severity="secondary" :disabled="outlinePoints.length === 0" @click="back">
        <Undo2 :size="18" aria-hidden="true" /> Last point back
      </Button>
      <span v-if="fills !== undefined" class="soft"
        >It fills {{ plain(100 * fills, 0) }} % of the frame.</span
      >
    </div>
    <p class="asked" role="status">{{ asked }}</p>
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
    <!-- Under it: what comes and goes above would move the photograph under the finger. -->
    <p v-if="scaleProblem" class="failure" role="alert">{{ scaleProblem }}</p>
    <ShotFindings
      :shot="shot"
      :name="name"
      :opened="tool === 'mark' ? opened : undefined"
      @open="((tool = 'mark'), (opened = $event))"
      @take-away="put({ marks: shot.marks.filter((_, i) => i !== $event) })"
    />
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
.asked {
  font-weight: 600;
}
</style>
