<script setup lang="ts">
import { computed } from 'vue'
import { castsOf } from '#core/pour'
import { usePour } from '~/parts/pour/usePour'
import { useUnits } from '~/parts/show/useUnits'
import { ingredientsOf } from '~/parts/mix/weighOut'

const { id } = defineProps<{ id: string }>()
const units = useUnits()
const { record, facts, failure } = usePour(id)

const labels = computed(() => {
  const plan = record.value?.plan
  if (!plan || !facts.value) return []
  const bowls = facts.value.batches.filter((b) => !b.topUp)
  const casts = castsOf(plan) / bowls.length
  return bowls.map(({ planned }, i) => {
    const all = ingredientsOf(plan, planned)
    return {
      key: i,
      name: planned.name || `Bowl ${i + 1}`,
      of: bowls.length,
      casts:
        casts >= 1 ? `${Math.round(casts)} ${Math.round(casts) === 1 ? 'cast' : 'casts'}` : 'part of a cast',
      dry: all.filter((x) => x.into === 'powder'),
      water: all.filter((x) => x.into === 'water'),
      waterMl: planned.waterG,
      slurryMl: planned.slurryMl,
    }
  })
})
</script>

<template>
  <PrintPage :back="`/pour/${id}`" back-name="Back to the pour">
    <template v-if="record">
      <h1>Labels: {{ record.plan.piece }}</h1>
      <div class="labels">
        <section v-for="label in labels" :key="label.key" class="label">
          <p class="top"><b>{{ label.name }}</b> of {{ label.of }} · {{ record.plan.plaster.name }}</p>
          <p v-for="d in label.dry" :key="d.id">
            In it: <b>{{ units.mass(d.massG) }}</b> {{ d.what.toLowerCase() }}
          </p>
          <p class="take">
            Water to take or find <span class="figure">{{ units.volume(label.waterMl) }}</span>
          </p>
          <p v-for="w in label.water.slice(1)" :key="w.id">
            In the water: {{ units.mass(w.massG) }} {{ w.what.toLowerCase() }}
          </p>
          <p>
            For {{ label.casts }}, {{ units.volume(label.slurryMl) }} ·
            {{ Math.round(record.plan.consistency) }}
            to 100
          </p>
          <p class="small">Dust: mask on to open. It burns: nobody’s hand in it. Not into a drain.</p>
        </section>
      </div>
    </template>
    <h1 v-else>{{ failure || 'Fetching the pour…' }}</h1>
  </PrintPage>
</template>

<style scoped>
.labels {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
}
.label {
  background: #fff;
  border: 2px solid var(--ink);
  border-radius: 0.6rem;
  padding: var(--s3);
  display: grid;
  gap: 2px;
  break-inside: avoid;
}
.top {
  border-bottom: 1px solid var(--ink);
}
.take .figure {
  display: block;
  font-size: 2rem;
}
.small {
  font-size: 0.85rem;
}
</style>
