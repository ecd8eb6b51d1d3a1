<script setup lang="ts">
/** What is assumed of a plaster's class, with range and origin, one tap away. Usage: <PlasterSources class-id="pop" /> */
import { computed } from 'vue'
import { plasterClass, type PlasterClassId } from '#core/plaster'
import { PLASTER_CLASS_WORDS, provenanceWords } from '~/utils/words'

const props = defineProps<{ classId: PlasterClassId }>()
const rows = computed(() => {
  const c = plasterClass(props.classId)
  return [
    { what: 'Use consistency', of: c.consistency, decimals: 0, unit: 'water to 100' },
    { what: 'Half set, 20 °C', of: c.halfHydrationMin, decimals: 0, unit: 'min' },
    { what: 'Expansion', of: c.expansionPct, decimals: 2, unit: '%' },
    { what: 'Hemihydrate', of: c.hemihydrateFraction, decimals: 2, unit: 'of the powder' },
    { what: 'Density of its grains', of: c.particleDensityKgM3, decimals: 0, unit: 'kg/m³' },
    { what: 'A scoop weighs', of: c.bulkDensityKgM3.scooped, decimals: 0, unit: 'g a litre' },
  ].map(({ what, of, decimals, unit }) => ({
    what,
    value: `${of.value.toFixed(decimals)} ${unit}`,
    range:
      of.low !== undefined && of.high !== undefined
        ? `${of.low.toFixed(decimals)}–${of.high.toFixed(decimals)}`
        : '',
    origin: provenanceWords(of.provenance),
  }))
})
</script>

<template>
  <details>
    <summary>What is assumed of {{ PLASTER_CLASS_WORDS[classId].toLowerCase() }}</summary>
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
  grid-template-columns: 11rem 1fr;
  gap: var(--s3);
  padding: var(--s1) 0;
  border-top: 1px solid var(--line);
}
dd {
  margin: 0;
}
small {
  display: block;
}
</style>
