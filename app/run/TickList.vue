<script setup lang="ts" generic="T extends string">
/**
 * Things to do that are recorded as they are done, each an event; ticked again, it is taken back.
 * Usage: <TickList label="To make ready" :items :words :facts :make="(item) => ({ type: 'prepared', item })" @record />
 */
import { computed } from 'vue'
import type { EventBody, PourOutlook } from '#core/pour'

const props = defineProps<{
  label: string
  items: readonly T[]
  words: Record<T, string>
  facts: PourOutlook
  /** The event that ticks one. */
  make: (item: T) => EventBody
}>()
const emit = defineEmits<{ record: [body: EventBody] }>()

/** Events that ticked each line; two tablets may both have. */
const ticks = computed(() => {
  const bodies = new Map(props.items.map((item) => [JSON.stringify(props.make(item)), item]))
  const found = new Map<T, string[]>()
  for (const { id, body } of props.facts.live) {
    const item = bodies.get(JSON.stringify(body))
    if (item !== undefined) found.set(item, [...(found.get(item) ?? []), id])
  }
  return found
})
function toggle(item: T) {
  const ids = ticks.value.get(item)
  if (!ids) emit('record', props.make(item))
  else for (const targetId of ids) emit('record', { type: 'void', targetId })
}
</script>

<template>
  <div class="items" role="group" :aria-label="label">
    <button
      v-for="item in items"
      :key="item"
      type="button"
      role="checkbox"
      :aria-checked="ticks.has(item)"
      class="item"
      @click="toggle(item)"
    >
      <span class="box" aria-hidden="true">{{ ticks.has(item) ? '✓' : '' }}</span>{{ words[item] }}
    </button>
  </div>
</template>

<style scoped>
.items {
  display: grid;
  gap: var(--s1) var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(min(17rem, 100%), 1fr));
}
.item {
  display: grid;
  grid-template-columns: 1.7rem 1fr;
  gap: var(--s2);
  align-items: center;
  min-height: 44px;
  padding: 2px var(--s2);
  border: 0;
  border-radius: 0.6rem;
  background: transparent;
  color: inherit;
  text-align: left;
  line-height: 1.15;
  cursor: pointer;
}
.box {
  width: 1.7rem;
  height: 1.7rem;
  border: 2px solid currentColor;
  border-radius: 0.45rem;
  display: grid;
  place-content: center;
  font-weight: 700;
}
.item[aria-checked='true'] {
  opacity: 0.8;
}
.item[aria-checked='true'] .box {
  background: currentColor;
}
.item[aria-checked='true'] .box::first-letter {
  color: var(--ground);
}
</style>
