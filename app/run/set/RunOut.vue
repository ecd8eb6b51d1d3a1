<script setup lang="ts">
/** How each came out, asked: whole is one of the answers. Usage: <RunOut :pieces="facts.pieces" @record="put" @all="close">its question</RunOut> */
import { computed } from 'vue'
import type { EventBody, PieceFacts } from '#core/pour'
import { usePieces } from '~/parts/pour/usePieces'
import { OUT_ANSWERS } from '../words'

const props = defineProps<{ pieces: readonly PieceFacts[] }>()
const emit = defineEmits<{ record: [body: EventBody]; all: [] }>()

const inMould = computed(() => props.pieces.filter((p) => !p.out))
const { chosen, said, isAll, none } = usePieces(inMould)
function answer({ outcome, gripped }: (typeof OUT_ANSWERS)[number]) {
  const wasAll = isAll.value
  emit('record', { type: 'demoulded', outcome, ...(gripped ? { gripped } : {}), ...said.value })
  if (wasAll) emit('all')
}
</script>

<template>
  <div class="head">
    <slot />
    <WhichPieces v-model="chosen" label="Which of them" :pieces="inMould" />
  </div>
  <div class="out" role="group" aria-label="How did it come out?">
    <button v-for="out in OUT_ANSWERS" :key="out.label" type="button" :disabled="none" @click="answer(out)">
      {{ out.label }}
    </button>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s5);
}
.out {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(9rem, 100%), 1fr));
  gap: var(--s3);
}
button {
  min-height: 4.6rem;
  padding: var(--s2);
  border-radius: 1.4rem;
  border: 3px solid currentColor;
  background: transparent;
  color: inherit;
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.1rem, 2.4vw, 1.7rem);
  line-height: 1.1;
  cursor: pointer;
}
</style>
