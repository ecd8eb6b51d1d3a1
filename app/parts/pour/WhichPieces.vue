<script setup lang="ts">
/**
 * Which casts of a pour something is said of: all of them, those of one bowl or one mould, or each by its number. Says nothing
 * where there is only one. Usage: <WhichPieces v-model="numbers" label="Which came out" :pieces />
 */
import { computed } from 'vue'
import type { PieceFacts } from '#core/pour'

const props = defineProps<{
  label: string
  /** Those that may be meant. */
  pieces: readonly PieceFacts[]
}>()
const chosen = defineModel<number[]>({ required: true })

/** More than so many numbers are a wall: they open on request. */
const MOST_SHOWN = 12

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
const groups = computed(() => [
  { label: `All ${props.pieces.length}`, numbers: numbersOf(props.pieces) },
  ...lots((p) => p.bowls.map((b) => `Bowl ${b + 1}`)),
  ...lots((p) => [p.name]),
])
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
    <div class="row">
      <button
        v-for="group in groups"
        :key="group.label"
        type="button"
        :aria-pressed="isChosen(group.numbers)"
        @click="chosen = [...group.numbers]"
      >
        {{ group.label }}
      </button>
    </div>
    <component :is="pieces.length > MOST_SHOWN ? 'details' : 'div'">
      <summary v-if="pieces.length > MOST_SHOWN">One by one</summary>
      <div class="row">
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
      </div>
    </component>
  </div>
</template>

<style scoped>
.which {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s2);
}
.label {
  font-weight: 600;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
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
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
@media (forced-colors: active) {
  button[aria-pressed='true'] {
    outline: 3px solid Highlight;
  }
}
</style>
