<script setup lang="ts">
/** How far the set is by depth, from the open face to the mould or from the middle out. Usage: <DepthStrip :curve :now-s :hottest-at :piece /> */
import { computed } from 'vue'
import type { SetCurve } from '#core/forecast'
import { heatPiecesOf, type PourPlan } from '#core/pour'
import { figure } from '~/parts/show/figures'

const props = defineProps<{ curve: SetCurve; nowS: number; hottestAt: number; piece: PourPlan }>()
const row = computed(() => {
  const i = props.curve.timeS.findIndex((t) => t >= props.nowS)
  return i < 0 ? props.curve.timeS.length - 1 : i
})
const alpha = computed(() => props.curve.alphaByDepth[row.value] ?? [])
const body = computed(() => heatPiecesOf(props.piece))
const ends = computed(() =>
  body.value.piece.shape === 'slab' && body.value.piece.top === 'open'
    ? ['open face', 'mould side']
    : ['middle', 'mould side'],
)
const range = computed(() => {
  const of = alpha.value.map((a) => Math.round(100 * a))
  return [Math.min(...of), Math.max(...of)] as const
})
</script>

<template>
  <figure v-if="alpha.length > 0">
    <figcaption>
      Set
      <b>{{ range[0] === range[1] ? figure(range[0], 0) : `${range[0]} to ${range[1]}` }} %</b>
      through its depth{{ body.even ? '' : ', less where it is thicker' }}
    </figcaption>
    <div class="strip" aria-hidden="true">
      <span v-for="(a, i) in alpha" :key="i" :style="{ opacity: 0.15 + 0.85 * a }" />
      <i :style="{ left: `${100 * hottestAt}%` }">▲</i>
    </div>
    <p class="ends" aria-hidden="true">
      <span>{{ ends[0] }}</span><span>{{ ends[1] }}</span>
    </p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  gap: 2px;
}
.strip {
  position: relative;
  display: flex;
  height: 20px;
  border: 2px solid currentColor;
  border-radius: 5px;
  margin-bottom: 12px;
}
.strip span {
  flex: 1;
  background: currentColor;
}
.strip i {
  position: absolute;
  top: 100%;
  transform: translateX(-50%);
  font-style: normal;
  font-size: 0.9rem;
  line-height: 1;
  color: var(--hot);
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: 0.9rem;
}
</style>
