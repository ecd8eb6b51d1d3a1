<script setup lang="ts">
/** What is assumed of a plaster, with range and origin, one tap away. Usage: <PlasterSources :plaster="plan.plaster" /> */
import { figure } from '~/parts/show/figures'
import { computed } from 'vue'
import { plasterClass } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import type { Provenance } from '#core/provenance'
import { useUnits } from '~/parts/show/useUnits'
import { provenanceWords } from '~/parts/words/plaster'

const props = defineProps<{ plaster: PourPlan['plaster'] }>()
const units = useUnits()
const rows = computed(() => {
  const { properties: p, origins } = props.plaster
  const c = plasterClass(p.classId)
  const row = (
    what: string,
    value: number,
    show: (value: number) => string,
    range: { low?: number; high?: number },
    origin: Provenance,
  ) => ({
    what,
    value: show(value),
    range:
      origin.kind === 'class_default' && range.low !== undefined && range.high !== undefined
        ? `${show(range.low)} to ${show(range.high)}`
        : '',
    origin: provenanceWords(origin),
  })
  return [
    row(
      'Use consistency',
      p.useConsistency,
      (v) => `${figure(v)} water to 100`,
      { low: p.consistencyLow, high: p.consistencyHigh },
      origins?.consistency ?? c.consistency.provenance,
    ),
    row(
      `Half set, ${units.temp(20)}`,
      p.halfHydrationMin,
      (v) => `${figure(v)} min`,
      c.halfHydrationMin,
      origins?.setTime ?? c.halfHydrationMin.provenance,
    ),
    row(
      'Expansion',
      p.expansionPct,
      (v) => `${figure(v, 2)} %`,
      c.expansionPct,
      origins?.expansion ?? c.expansionPct.provenance,
    ),
    row(
      'Strength against the common curve',
      p.strengthFactor,
      (v) => figure(v, 2),
      {},
      origins?.strength ?? c.strengthFactor.provenance,
    ),
    row(
      'Hemihydrate',
      p.hemihydrateFraction,
      (v) => `${figure(v, 2)} of the powder`,
      c.hemihydrateFraction,
      c.hemihydrateFraction.provenance,
    ),
    row(
      'Density of its grains',
      p.particleDensityKgM3,
      units.density,
      c.particleDensityKgM3,
      c.particleDensityKgM3.provenance,
    ),
    row(
      'The powder, in a scoop',
      c.bulkDensityKgM3.scooped.value,
      units.density,
      c.bulkDensityKgM3.scooped,
      c.bulkDensityKgM3.scooped.provenance,
    ),
  ]
})
</script>

<template>
  <details>
    <summary>What is assumed of this plaster</summary>
    <dl>
      <div v-for="row in rows" :key="row.what">
        <dt>{{ row.what }}</dt>
        <dd>
          {{ row.value }}<template v-if="row.range"> ({{ row.range }})</template>
          <small class="soft">{{ row.origin }}</small>
        </dd>
      </div>
    </dl>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 600;
  color: var(--ink-soft);
}
dl {
  margin: var(--s2) 0 0;
}
dl div {
  display: grid;
  grid-template-columns: minmax(0, 11rem) minmax(0, 1fr);
  gap: var(--s3);
  padding: var(--s1) 0;
  border-top: 1px solid var(--line);
}
dd {
  min-width: 0;
  overflow-wrap: anywhere;
  margin: 0;
}
small {
  display: block;
}
</style>
