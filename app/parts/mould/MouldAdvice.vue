<script setup lang="ts">
/**
 * What this mould will do: does it let go, what goes between, where air sits, what to make ready, is it thick enough.
 * Usage: <MouldAdvice :facts :volume :purpose :thickness-mm :plaster-class />
 */
import { computed } from 'vue'
import {
  airTactics,
  checkThickness,
  describeCavity,
  letsGo,
  preparationOf,
  releaseAdvice,
  type CavityDescription,
  type MouldFacts,
  type Purpose,
} from '#core/mould'
import type { PlasterClassId } from '#core/plaster'
import { useUnits } from '~/parts/show/useUnits'
import {
  LET_GO_WORDS,
  PREPARATION_WORDS,
  RELEASE_WORDS,
  TACTIC_WORDS,
  THICKNESS_WORDS,
} from '~/parts/words/mould'

const props = defineProps<{
  facts: MouldFacts
  volume: CavityDescription
  purpose: Purpose
  thicknessMm: number
  plasterClass: PlasterClassId | undefined
}>()
const units = useUnits()
const described = computed(() => describeCavity(props.volume))
const finding = computed(() => (described.value.ok ? described.value.finding : undefined))
const release = computed(() => releaseAdvice(props.facts.material, props.plasterClass))
const outcome = computed(() => letsGo(props.facts, finding.value?.undercutMm))
const thickness = computed(() =>
  checkThickness(props.purpose, finding.value?.thinnestMm ?? props.thicknessMm).map((i) =>
    THICKNESS_WORDS[i.code](i.actual, i.limit, units),
  ),
)
const tactics = computed(() => airTactics(props.facts))
const preparations = computed(() => preparationOf(props.facts, props.volume))
const GRADE_WORDS = { stop: 'Cannot', care: 'With care', fine: 'Yes' } as const
</script>

<template>
  <div class="advice">
    <section>
      <h3>Will it let go?</h3>
      <p v-for="o in outcome" :key="o.code" class="line" :class="o.grade">
        <b>{{ GRADE_WORDS[o.grade] }}.</b> {{ LET_GO_WORDS[o.code] }}
      </p>
    </section>
    <section>
      <h3>Release</h3>
      <p v-for="code in release" :key="code">
        <b>{{ RELEASE_WORDS[code].text }}</b> <span class="soft">{{ RELEASE_WORDS[code].why }}</span>
      </p>
    </section>
    <section v-if="tactics.length > 0">
      <h3>Where the air would sit</h3>
      <ul>
        <li v-for="t in tactics" :key="t">{{ TACTIC_WORDS[t] }}</li>
      </ul>
    </section>
    <section v-if="thickness.length > 0">
      <h3>Thickness</h3>
      <p v-for="words in thickness" :key="words" class="line care">{{ words }}</p>
    </section>
    <section>
      <h3>To make ready</h3>
      <ul>
        <li v-for="p in preparations" :key="p">{{ PREPARATION_WORDS[p] }}</li>
      </ul>
    </section>
    <p class="soft small">Common practice, no source. The maker’s data sheet comes first.</p>
  </div>
</template>

<style scoped>
.advice {
  display: grid;
  gap: var(--s4);
}
section {
  display: grid;
  gap: var(--s1);
}
h3 {
  font-size: 1.05rem;
}
ul {
  margin: 0;
  padding-left: 1.2rem;
}
.line {
  padding-left: var(--s3);
  border-left: 5px solid var(--wet);
}
.line.care {
  border-left-color: var(--warm);
}
.line.stop {
  border-left-color: var(--hot);
  font-weight: 600;
}
.small {
  font-size: 0.88rem;
}
</style>
