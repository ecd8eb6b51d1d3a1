<script setup lang="ts">
/** How this piece comes out of this mould. Usage: <WayOut :facts :now-ms /> */
import { computed } from 'vue'
import { wayOut, type OutStep } from '#core/demould'
import { mouldKindOf } from '#core/mould'
import type { PourOutlook } from '#core/pour'
import { momentText } from '~/parts/show/time'
import { FRAGILE_WORDS, OUT_STEP_WORDS, OUT_TOOL_WORDS } from '~/parts/words/demould'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const coolMs = computed(() => {
  const { settingStartMs, inHand } = props.facts
  const { warmS, coolS } = inHand.marks
  return settingStartMs === undefined || warmS === undefined || coolS === undefined
    ? undefined
    : settingStartMs + coolS * 1000
})
/** From when on undercuts and thin places may be peeled, ms; undefined where that is past. */
const peelMs = computed(() => {
  const { settingStartMs, inHand } = props.facts
  const ms = (settingStartMs ?? 0) + 1000 * inHand.green.by_edge.high
  return settingStartMs === undefined || ms < props.nowMs ? undefined : ms
})
/** Of the heat that is still in it, when it goes: one of the steps says how to hold it meanwhile. */
const words = (step: OutStep) =>
  step === 'hold_warm' && coolMs.value !== undefined && coolMs.value > props.nowMs
    ? `${OUT_STEP_WORDS[step]} That is about ${momentText(coolMs.value, props.nowMs)}.`
    : OUT_STEP_WORDS[step]

/** One way for each kind of mould in the plan. */
const ways = computed(() => {
  const { mould } = props.facts.plan
  const members = mould.members ?? []
  if (members.length === 0) return [{ name: '', way: wayOut(mould.kind, undefined, undefined) }]
  const seen = new Map<string, { name: string; way: ReturnType<typeof wayOut> }>()
  for (const member of members) {
    const way = wayOut(mouldKindOf(member.facts, member.volume), member.facts, member.thinnestMm ?? undefined)
    const key = JSON.stringify(way)
    const same = seen.get(key)
    seen.set(key, { name: same ? `${same.name}, ${member.name}` : member.name, way })
  }
  return [...seen.values()]
})
</script>

<template>
  <section class="out" aria-labelledby="way-out">
    <h2 id="way-out">Taking it out</h2>
    <template v-for="{ name, way } in ways" :key="name">
      <h3 v-if="ways.length > 1">{{ name }}</h3>
      <ol>
        <li v-for="step in way.steps" :key="step">{{ words(step) }}</li>
      </ol>
      <p v-if="way.tools.length > 0">
        To hand: <b>{{ way.tools.map((t) => OUT_TOOL_WORDS[t]).join(', ') }}</b>.
      </p>
      <p v-if="way.breaksFirst.length > 0">
        Breaks first: <b>{{ way.breaksFirst.map((p) => FRAGILE_WORDS[p]).join(', ') }}</b>. Fresh plaster is
        soft: it scratches, chips and bruises.<template v-if="peelMs !== undefined">
          It bears being peeled from <b>{{ momentText(peelMs, nowMs) }}</b> on.</template
        >
      </p>
      <p v-if="way.usedUp">The mould is used up with it.</p>
    </template>
  </section>
</template>

<style scoped>
.out {
  display: grid;
  gap: var(--s2);
}
ol {
  margin: 0;
  padding-left: 1.4rem;
  display: grid;
  gap: var(--s1);
  font-size: 1.05rem;
}
h2 {
  font-size: 1.15rem;
}
h3 {
  font-size: 1rem;
}
</style>
