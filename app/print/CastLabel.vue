<script setup lang="ts">
/** A label for the drawer: what it is, where and when it was taken, and a code that leads back to its record. */
import { computed } from 'vue'
import { usePour } from '~/parts/pour/usePour'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useWorkshop } from '~/stores/workshop'
import { dayText } from '~/parts/show/time'
import { SOIL_WORDS } from '~/parts/words/field'
import { VERDICT_WORDS } from '~/parts/words/pour'
import { qrPath } from '~/parts/show/qr'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const now = useNowBy(MS_PER.min)
const { record, facts, failure } = usePour(id)

/** One for each cast: six of one pour go into six drawers. */
const labels = computed(() => {
  const pieces = facts.value?.pieces ?? []
  return pieces.map((piece) => {
    const address = `${location.origin}/casts/${id}${pieces.length > 1 ? `?piece=${piece.number}` : ''}`
    return {
      address,
      code: qrPath(address),
      number: piece.number,
      of: pieces.length > 1 ? `${piece.number} of ${pieces.length}` : '',
      mould: pieces.length > 1 ? piece.name : record.value!.plan.mould.name,
      verdict: piece.verdict,
    }
  })
})
const poured = computed(() => {
  const at = facts.value?.doneAtMs.demould ?? record.value?.createdAtMs
  return at === undefined ? '' : dayText(at, now.value)
})
const who = computed(() => facts.value?.live.findLast((e) => e.who !== '')?.who ?? '')
/** Where the print lay that it is of. */
const found = computed(() => {
  const ids = record.value?.plan.mould.members?.map((m) => m.mouldId) ?? []
  const find = workshop.moulds.find((m) => ids.includes(m.id))?.find
  return find ? [find.place, SOIL_WORDS[find.ground].toLowerCase()].filter(Boolean).join(', ') : ''
})
const notes = computed(
  () => facts.value?.live.flatMap(({ body }) => (body.type === 'note' ? [body.text] : [])).slice(0, 2) ?? [],
)
</script>

<template>
  <PrintPage :back="`/casts/${id}`" back-name="Back to the cast">
    <h1 v-if="!record">{{ failure || 'Fetching the record…' }}</h1>
    <template v-else>
      <section v-for="label in labels" :key="label.number" class="label">
        <svg
          :viewBox="`0 0 ${label.code.size} ${label.code.size}`"
          role="img"
          :aria-label="`Code of ${label.address}`"
        >
          <path :d="label.code.path" />
        </svg>
        <div>
          <h1>{{ record.plan.piece }}<template v-if="label.of">, {{ label.of }}</template></h1>
          <p>
            <b>{{ poured }}</b><template v-if="who"> · {{ who }}</template> ·
            {{ workshop.settings.workshopName }}
          </p>
          <p>{{ (facts ?? record).plan.plaster.name }}, {{ Math.round(record.plan.consistency) }} to 100</p>
          <p>{{ label.mould }}</p>
          <p v-if="found">{{ found }}</p>
          <p v-if="label.verdict">
            {{ VERDICT_WORDS[label.verdict.verdict]
            }}{{ label.verdict.reason ? `: ${label.verdict.reason}` : '' }}
          </p>
          <p v-for="note in notes" :key="note" class="small">{{ note }}</p>
          <p class="small">{{ label.address }}</p>
        </div>
      </section>
    </template>
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
