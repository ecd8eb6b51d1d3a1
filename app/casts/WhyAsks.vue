<script setup lang="ts">
/** What the record leaves out and somebody may still know: each answer is one press. Usage: <WhyAsks :facts :pour-id /> */
import SelectButton from 'primevue/selectbutton'
import { computed, useId } from 'vue'
import { answersTo, type Recalled } from '#core/finish'
import { asksOf, type Asked, type PourOutlook } from '#core/pour'
import { ASK_WORDS, RECALLED_WORDS } from '~/parts/words/asks'
import { usePours } from '~/stores/pours'

const props = defineProps<{ facts: PourOutlook; pourId: string }>()
const pours = usePours()
const id = useId()

/** More would be a form. */
const MOST_ASKED = 3
const asks = computed(() => asksOf(props.facts))
const shown = computed(() => [
  ...asks.value.filter((a) => !a.answered).slice(0, MOST_ASKED),
  ...asks.value.filter((a) => a.answered),
])
const options = (asked: Asked) =>
  answersTo(asked.ask).map((value) => ({ value, label: RECALLED_WORDS[value].answer }))

function answer({ answered }: Asked, said: Recalled | null) {
  if (said) void pours.record(props.pourId, { type: 'recalled', said })
  else if (answered) void pours.record(props.pourId, { type: 'void', targetId: answered.eventId })
}
</script>

<template>
  <section v-if="shown.length > 0" class="asks" :aria-labelledby="`${id}-title`">
    <h3 :id="`${id}-title`">What would settle it</h3>
    <ul>
      <li v-for="asked in shown" :key="asked.ask" :data-ask="asked.ask">
        <span :id="`${id}-${asked.ask}`">{{ ASK_WORDS[asked.ask] }}</span>
        <SelectButton
          :model-value="asked.answered?.said ?? null"
          :options="options(asked)"
          option-value="value"
          option-label="label"
          :aria-labelledby="`${id}-${asked.ask}`"
          @update:model-value="(said: Recalled | null) => answer(asked, said)"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.asks {
  display: grid;
  gap: var(--s2);
  width: 100%;
}
h3 {
  font-size: 1.15rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
  gap: var(--s3) var(--s4);
}
li {
  display: grid;
  gap: var(--s1);
  align-content: start;
  justify-items: start;
}
</style>
