<script setup lang="ts">
/**
 * Which casts of a pour something is said of: all of them, those of one bowl or one mould, or each by its number. Says nothing
 * where there is only one. Usage: <WhichPieces v-model="numbers" label="Which came out" :pieces />
 */
import { computed, ref } from 'vue'
import type { PieceFacts } from '#core/pour'

const props = defineProps<{
  label: string
  /** Those that may be meant. */
  pieces: readonly PieceFacts[]
}>()
const chosen = defineModel<number[]>({ required: true })

const numbersOf = (pieces: readonly PieceFacts[]) => pieces.map((p) => p.number)
/** Pieces by what they have in common, where that parts them. */
function lots(keysOf: (p: PieceFacts) => readonly string[]) {
  const keys = [...new Set(props.pieces.flatMap(keysOf))]
  if (keys.length < 2) return []
  return keys.map((label) => ({
    label,
    numbers: numbersOf(props.pieces.filter((p) => keysOf(p).includes(label))),
  }))
}
const all = computed(() => numbersOf(props.pieces))
/** All at once is the usual answer: which of them is asked of whoever says that it is not. */
const opened = ref(false)
const isOpen = computed(() => opened.value || !isChosen(all.value))
const groups = computed(() => [...lots((p) => p.bowls.map((b) => `Bowl ${b + 1}`)), ...lots((p) => [p.name])])
const isChosen = (numbers: readonly number[]) =>
  numbers.length === chosen.value.length && numbers.every((n) => chosen.value.includes(n))
function toggle(number: number) {
  const now = chosen.value.includes(number)
    ? chosen.value.filter((n) => n !== number)
    : [...chosen.value, number]
  chosen.value = now.sort((a, b) => a - b)
}
</script>

<template>
  <div v-if="pieces.length > 1" class="which" role="group" :aria-label="label">
    <span class="label" aria-hidden="true">{{ label }}</span>
    <button type="button" :aria-pressed="isChosen(all)" @click="chosen = [...all]">
      All {{ all.length }}
    </button>
    <button v-if="!isOpen" type="button" aria-expanded="false" @click="opened = true">Only some…</button>
    <template v-else>
      <button
        v-for="group in groups"
        :key="group.label"
        type="button"
        :aria-pressed="isChosen(group.numbers)"
        @click="chosen = [...group.numbers]"
      >
        {{ group.label }}
      </button>
      <button
        v-for="{ number, name } in pieces"
        :key="number"
        type="button"
        class="one"
        :aria-label="`Piece ${number}, ${name}`"
        :aria-pressed="chosen.includes(number)"
        @click="toggle(number)"
      >
        {{ number }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.which {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.label {
  font-weight: 600;
}
button {
  min-width: 44px;
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid currentColor;
  border-radius: 1.4rem;
  background: transparent;
  color: inherit;
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}
.one {
  padding: 0;
}
button[aria-pressed='true'] {
  background: var(--wet-light);
  color: var(--ink);
  border-color: var(--wet-light);
}
@media (forced-colors: active) {
  button[aria-pressed='true'] {
    outline: 3px solid Highlight;
  }
}
</style>
