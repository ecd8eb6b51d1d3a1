<script setup lang="ts">
/** What a mould is made of and how it is built. Usage: <MouldFactsFields v-model="facts" /> */
import {
  AIR_TRAPS,
  BUILDS,
  FLEXES,
  MOULD_MATERIALS,
  SUPPORTS,
  UNDERCUTS,
  usualFacts,
  type MouldFacts,
  type MouldMaterial,
} from '#core/mould'
import {
  AIR_TRAP_WORDS,
  BUILD_WORDS,
  FLEX_WORDS,
  MATERIAL_WORDS,
  OPENING_WORDS,
  SUPPORT_WORDS,
  UNDERCUT_WORDS,
} from '~/parts/words/mould'

const facts = defineModel<MouldFacts>({ required: true })
const options = <K extends string>(keys: readonly K[], words: Record<K, string>) =>
  keys.map((value) => ({ value, label: words[value] }))
const put = (change: Partial<MouldFacts>) => (facts.value = { ...facts.value, ...change })
/** Another material brings its own nature; what was said about the form stays. */
function choose(material: MouldMaterial) {
  const { undercut, airTraps, opening } = facts.value
  facts.value = { ...usualFacts(material), undercut, airTraps, opening }
}
const ONE_TIME = [
  { value: 'no', label: 'Used again' },
  { value: 'yes', label: 'One cast only' },
]
</script>

<template>
  <div class="facts">
    <LabelledSelect
      :model-value="facts.material"
      label="Made of"
      :options="options(MOULD_MATERIALS, MATERIAL_WORDS)"
      @update:model-value="choose"
    />
    <LabelledPills
      :model-value="facts.undercut"
      label="Undercut"
      :options="options(UNDERCUTS, UNDERCUT_WORDS)"
      @update:model-value="put({ undercut: $event })"
    />
    <LabelledPills
      :model-value="facts.airTraps"
      label="Where air could sit"
      multiple
      :options="options(AIR_TRAPS, AIR_TRAP_WORDS)"
      @update:model-value="put({ airTraps: $event })"
    />
    <details>
      <summary>How it is built</summary>
      <div class="facts">
        <LabelledPills
          :model-value="facts.build"
          label="Built"
          :options="options(BUILDS, BUILD_WORDS)"
          @update:model-value="put({ build: $event })"
        />
        <LabelledPills
          :model-value="facts.flex"
          label="Its wall"
          :options="options(FLEXES, FLEX_WORDS)"
          @update:model-value="put({ flex: $event })"
        />
        <LabelledPills
          :model-value="facts.support"
          label="Held by"
          :options="options(SUPPORTS, SUPPORT_WORDS)"
          @update:model-value="put({ support: $event })"
        />
        <LabelledPills
          :model-value="facts.opening"
          label="Opening"
          :options="options(['wide', 'narrow'] as const, OPENING_WORDS)"
          @update:model-value="put({ opening: $event })"
        />
        <LabelledPills
          :model-value="facts.oneTime ? 'yes' : 'no'"
          label="Life"
          :options="ONE_TIME"
          @update:model-value="put({ oneTime: $event === 'yes' })"
        />
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
