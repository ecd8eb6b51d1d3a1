<script setup lang="ts">
/** What is ticked at this step: the mould's preparation list, and what is done about its air. Usage: <RunTasks :facts :step @record /> */
import { computed } from 'vue'
import {
  airTacticsOf,
  preparationsOf,
  stageOf,
  type EventBody,
  type PourOutlook,
  type StepId,
} from '#core/pour'
import { PREPARATION_WORDS, TACTIC_WORDS } from '~/parts/words/mould'

const props = defineProps<{ facts: PourOutlook; step: StepId | undefined }>()
const emit = defineEmits<{ record: [body: EventBody] }>()

const items = computed(() => (props.step === 'prepare' ? preparationsOf(props.facts.plan) : []))
/** Done about the air while it is filled: ticked, so that it is known afterwards. */
const tactics = computed(() => {
  const { next, plan } = props.facts
  if (!next || stageOf(next) !== 'pour') return []
  // Steps of their own say these themselves; vents belong to the preparation.
  return airTacticsOf(plan).filter((t) => !['brush_coat', 'part_fill', 'vent'].includes(t))
})
</script>

<template>
  <TickList
    v-if="items.length > 0"
    class="tasks"
    label="To make ready"
    :items="items"
    :words="PREPARATION_WORDS"
    :facts="facts"
    :make="(item) => ({ type: 'prepared', item })"
    @record="emit('record', $event)"
  />
  <TickList
    v-if="tactics.length > 0"
    class="later"
    label="Against air"
    :items="tactics"
    :words="TACTIC_WORDS"
    :facts="facts"
    :make="(how) => ({ type: 'air_freed', how })"
    @record="emit('record', $event)"
  />
</template>
