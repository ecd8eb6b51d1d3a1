<script setup lang="ts">
/** A label for the drawer: what it is, where and when it was taken, and a code that leads back to its record. */
import { computed } from 'vue'
import { usePour } from '~/parts/pour/usePour'
import { useNow } from '~/stores/bench'
import { useWorkshop } from '~/stores/workshop'
import { dayText } from '~/parts/show/time'
import { VERDICT_WORDS } from '~/parts/words/pour'
import { qrPath } from './qr'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const now = useNow()
const { record, facts, failure } = usePour(id)

const address = `${location.origin}/casts/${id}`
const code = computed(() => qrPath(address))
const poured = computed(() => {
  const at = facts.value?.doneAtMs.demould ?? record.value?.createdAtMs
  return at === undefined ? '' : dayText(at, now.value)
})
const who = computed(() => facts.value?.live.findLast((e) => e.who !== '')?.who ?? '')
const notes = computed(
  () => facts.value?.live.flatMap(({ body }) => (body.type === 'note' ? [body.text] : [])).slice(0, 2) ?? [],
)
</script>

<template>
  <PrintPage :back="`/casts/${id}`" back-name="Back to the cast">
    <h1 v-if="!record">{{ failure || 'Fetching the record…' }}</h1>
    <section v-else class="label">
      <svg :viewBox="`0 0 ${code.size} ${code.size}`" role="img" :aria-label="`Code of ${address}`">
        <path :d="code.path" />
      </svg>
      <div>
        <h1>{{ record.plan.piece }}</h1>
        <p>
          <b>{{ poured }}</b><template v-if="who"> · {{ who }}</template> ·
          {{ workshop.settings.workshopName }}
        </p>
        <p>{{ record.plan.plaster.name }}, {{ Math.round(record.plan.consistency) }} to 100</p>
        <p>{{ record.plan.mould.name }}</p>
        <p v-if="facts?.verdict">
          {{ VERDICT_WORDS[facts.verdict.verdict]
          }}{{ facts.verdict.reason ? `: ${facts.verdict.reason}` : '' }}
        </p>
        <p v-for="note in notes" :key="note" class="small">{{ note }}</p>
        <p class="small">{{ address }}</p>
      </div>
    </section>
  </PrintPage>
</template>

<style scoped>
.label {
  display: grid;
  grid-template-columns: minmax(20mm, 32mm) minmax(0, 1fr);
  gap: 5mm;
  width: min(100mm, 100%);
  min-height: 40mm;
  padding: 4mm;
  border: 1px dashed #777;
  break-inside: avoid;
}
svg {
  width: 100%;
}
h1 {
  font-size: 1.1rem;
}
.small {
  overflow-wrap: anywhere;
}
@media print {
  .small {
    font-size: 0.72rem;
  }
}
</style>
