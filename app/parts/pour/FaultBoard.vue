<script setup lang="ts">
/**
 * The piece on a photograph or cut through the middle, with its faults marked on it; a press puts the next mark.
 * Usage: <FaultBoard v-model:spot="spot" :facts :photo-id :marks="[{ n: 1, spot }]" :marking />
 */
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Spot } from '#core/finish'
import type { PourOutlook } from '#core/pour'
import { pictured, sectionOf } from '~/parts/mould/ways'
import { rounded } from '~/parts/show/figures'
import { usePhotos } from '~/stores/photos'

const props = defineProps<{
  facts: PourOutlook
  /** Undefined: on the drawn section. */
  photoId: string | undefined
  marks: readonly { n: number; spot: Spot }[]
  /** Whether a press puts a mark. */
  marking: boolean
}>()
const spot = defineModel<Spot | undefined>('spot')
const photos = usePhotos()
const board = useTemplateRef('board')

const member = computed(() => props.facts.plan.mould.members?.[0])
const drawing = computed(
  () => member.value && sectionOf(pictured(member.value.volume), member.value.cavityMl / member.value.count),
)

/**
 * Width to height of what is shown: the board is of exactly that form, so that a mark stays where it was put on a screen of
 * any other.
 */
const ratio = ref(1.5)
const TALLEST_REM = 26
function measure() {
  const shown = board.value?.querySelector('img, svg')
  if (shown instanceof SVGSVGElement) ratio.value = shown.viewBox.baseVal.width / shown.viewBox.baseVal.height
  else if (shown instanceof HTMLImageElement && shown.naturalHeight > 0)
    ratio.value = shown.naturalWidth / shown.naturalHeight
}
watch(() => [props.photoId, drawing.value], measure, { flush: 'post', immediate: true })

const STEP = 0.02
const within = (v: number) => Math.min(1, Math.max(0, v))
function press(event: MouseEvent) {
  if (!props.marking || !board.value) return
  const { left, top, width, height } = board.value.getBoundingClientRect()
  spot.value = { x: within((event.clientX - left) / width), y: within((event.clientY - top) / height) }
}
function move(dx: number, dy: number) {
  if (!props.marking) return
  const { x, y } = spot.value ?? { x: 0.5, y: 0.5 }
  spot.value = { x: within(x + dx), y: within(y + dy) }
}
const at = ({ x, y }: Spot) => ({ left: `${rounded(100 * x, 1)}%`, top: `${rounded(100 * y, 1)}%` })
</script>

<template>
  <div
    ref="board"
    class="board"
    :class="{ marking }"
    :style="{ aspectRatio: ratio, width: `min(100%, ${TALLEST_REM * ratio}rem)` }"
    :tabindex="marking ? 0 : undefined"
    role="group"
    :aria-label="
      marking ? 'Where it is: press on the picture, or move the mark with the arrow keys' : 'The piece'
    "
    @click="press"
    @keydown.left.prevent="move(-STEP, 0)"
    @keydown.right.prevent="move(STEP, 0)"
    @keydown.up.prevent="move(0, -STEP)"
    @keydown.down.prevent="move(0, STEP)"
  >
    <img
      v-if="photoId"
      :src="photos.addressOf(photoId)"
      alt="The piece as it was photographed"
      @load="measure"
    />
    <SectionPicture
      v-else-if="drawing && member"
      :drawing="drawing"
      :material="member.facts.material"
      label="The piece in its mould, cut through the middle"
    />
    <p v-else class="soft">No picture yet.</p>
    <span v-for="m in marks" :key="m.n" class="mark" :style="at(m.spot)" aria-hidden="true">{{ m.n }}</span>
    <span v-if="marking && spot" class="mark new" :style="at(spot)" aria-hidden="true">+</span>
  </div>
</template>

<style scoped>
.board {
  position: relative;
  display: grid;
  align-self: start;
  border-radius: 0.8rem;
  overflow: hidden;
  background: var(--chalk);
}
.marking {
  cursor: crosshair;
}
img,
:deep(svg) {
  display: block;
  width: 100%;
  height: 100%;
}
.mark {
  position: absolute;
  translate: -50% -50%;
  display: grid;
  place-items: center;
  width: 2.1rem;
  height: 2.1rem;
  border-radius: 50%;
  border: 3px solid #fff;
  background: var(--hot);
  color: #fff;
  font-weight: 700;
  box-shadow: 0 1px 4px rgb(0 0 0 / 45%);
}
.new {
  background: var(--ink);
}
</style>
