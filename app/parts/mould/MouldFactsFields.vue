<script setup lang="ts">
/** What a mould is made of and how it is built. Usage: <MouldFactsFields v-model="facts" /> */
import { usualFacts, type MouldFacts, type MouldMaterial } from '#core/mould'
import { FACT_WORDS } from '~/parts/words/mould'
import MouldFactField from './MouldFactField.vue'

const facts = defineModel<MouldFacts>({ required: true })
function put<K extends keyof MouldFacts>(key: K, value: MouldFacts[K]) {
  facts.value = key === 'material' ? choose(value as MouldMaterial) : { ...facts.value, [key]: value }
}
/** Another material brings its own nature; what was said about the form stays. */
function choose(material: MouldMaterial): MouldFacts {
  const { undercut, airTraps, opening } = facts.value
  return { ...usualFacts(material), undercut, airTraps, opening }
}
const keys = Object.keys(FACT_WORDS) as (keyof MouldFacts)[]
const first = keys.filter((key) => !FACT_WORDS[key].built)
const built = keys.filter((key) => FACT_WORDS[key].built)
</script>

<template>
  <div class="facts">
    <MouldFactField v-for="key in first" :key :fact="key" :facts @put="put" />
    <details>
      <summary>How it is built</summary>
      <div class="facts">
        <MouldFactField v-for="key in built" :key :fact="key" :facts @put="put" />
      </div>
    </details>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  gap: var(--s3);
}
summary {
  cursor: pointer;
  min-height: 44px;
  padding-top: var(--s2);
  font-weight: 600;
}
</style>
