<script setup lang="ts">
/** One respect in which moulds differ, by its words. Usage: <MouldFactField fact="flex" :facts @put="put" /> */
import { computed } from 'vue'
import type { MouldFacts } from '#core/mould'
import { FACT_WORDS, type FactWords } from '~/parts/words/mould'

const props = defineProps<{ fact: keyof MouldFacts; facts: MouldFacts }>()
const emit = defineEmits<{ put: [fact: keyof MouldFacts, value: never] }>()

/** More than these are a list to open, not pills. */
const MOST_PILLS = 6
const words = computed(
  () => FACT_WORDS[props.fact] as FactWords<string> | FactWords<readonly string[]> | FactWords<boolean>,
)
const options = computed(() => {
  const w = words.value
  const offered = 'one' in w ? w.one : 'several' in w ? w.several : { no: w.no, yes: w.yes }
  return Object.entries(offered).map(([value, label]) => ({ value, label }))
})
const value = computed({
  get: () => {
    const now = props.facts[props.fact]
    return typeof now === 'boolean' ? (now ? 'yes' : 'no') : now
  },
  set: (chosen) => emit('put', props.fact, ('yes' in words.value ? chosen === 'yes' : chosen) as never),
})
</script>

<template>
  <LabelledPills
    v-if="'several' in words"
    v-model="value as string[]"
    :label="words.label"
    multiple
    :options="options"
  />
  <LabelledPills
    v-else-if="options.length <= MOST_PILLS"
    v-model="value as string"
    :label="words.label"
    :options="options"
  />
  <LabelledSelect v-else v-model="value as string" :label="words.label" :options="options" />
</template>
