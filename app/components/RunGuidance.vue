<script setup lang="ts">
/**
 * What this mould asks for at this step: its preparation list to tick, how to get its air out, where the rest goes.
 * Usage: <RunGuidance :facts :step @record />
 */
import { computed } from 'vue'
import { placeLeftover, type Preparation } from '#core/mould'
import { airTacticsOf, preparationsOf, type EventBody, type PourFacts, type StepId } from '#core/pour'
import { useUnits } from '~/composables/useUnits'
import { PREPARATION_WORDS, TACTIC_WORDS } from '~/utils/mouldWords'

const props = defineProps<{ facts: PourFacts; step: StepId | undefined }>()
const emit = defineEmits<{ record: [body: EventBody] }>()
const units = useUnits()

const items = computed(() => (props.step === 'prepare' ? preparationsOf(props.facts.plan) : []))
/** Events that ticked each line; two tablets may both have. */
const ticks = computed(() => {
  const found = new Map<Preparation, string[]>()
  for (const { id, body } of props.facts.live)
    if (body.type === 'prepared') found.set(body.item, [...(found.get(body.item) ?? []), id])
  return found
})
function toggle(item: Preparation) {
  const ids = ticks.value.get(item)
  if (!ids) emit('record', { type: 'prepared', item })
  else for (const targetId of ids) emit('record', { type: 'void', targetId })
}

const FILLING: (StepId | undefined)[] = ['face_coat', 'part_fill', 'pour']
const tactics = computed(() => {
  if (!FILLING.includes(props.step)) return []
  // Steps of their own say these themselves; vents belong to the preparation.
  return airTacticsOf(props.facts.plan).filter((t) => !['brush_coat', 'part_fill', 'vent'].includes(t))
})
const leftover = computed(() => {
  if (props.step !== 'pour' && props.step !== 'tap') return []
  const { plan, planned, actual } = props.facts
  return placeLeftover((actual ?? planned).slurryMl - plan.mould.cavityMl, plan.spill ?? []).fills
})
</script>

<template>
  <div v-if="items.length > 0" class="items" role="group" aria-label="To make ready">
    <button
      v-for="item in items"
      :key="item"
      type="button"
      role="checkbox"
      :aria-checked="ticks.has(item)"
      class="item"
      @click="toggle(item)"
    >
      <span class="box" aria-hidden="true">{{ ticks.has(item) ? '✓' : '' }}</span>{{
        PREPARATION_WORDS[item]
      }}
    </button>
  </div>
  <ul v-if="tactics.length > 0 || leftover.length > 0" class="lines">
    <li v-for="t in tactics" :key="t">{{ TACTIC_WORDS[t] }}</li>
    <li v-if="leftover.length > 0">
      What is left fills
      <template v-for="(fill, i) in leftover" :key="fill.mouldId"
        ><template v-if="i > 0">, then </template><b>{{ fill.name }}</b> ({{
          units.roughVolume(fill.fillMl)
        }})</template
      >.
    </li>
  </ul>
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
  color: var(--on-ground-soft);
}
.item[aria-checked='true'] .box {
  background: var(--pool-colour);
  color: var(--on-pool);
}
.lines {
  margin: 0;
  padding-left: 1.2rem;
  font-size: 1.08rem;
}
</style>
