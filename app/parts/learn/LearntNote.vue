<script setup lang="ts">
/**
 * What was learnt of something from its pours, each of them a point; switched off, set back, odd ones asked about.
 * Usage: <LearntNote name="Sack of spring" :subject="`bag:${id}`" factor="set_time" />
 */
import Button from 'primevue/button'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, ref, useId } from 'vue'
import { LEARN_ALL, ODD_Z, type FactorId, type LearntFactor, type Subject } from '#core/learn'
import { figure, rounded } from '~/parts/show/figures'
import { dayText } from '~/parts/show/time'
import { useNow } from '~/stores/bench'
import { useLearning } from '~/stores/learning'
import { ratioAxis } from './axis'
import { FACTOR_WORDS, factorSentence } from './words'

const props = defineProps<{
  name: string
  subject: Subject
  factor: FactorId
  /** What it comes to where more than pours was seen of it. */
  known?: LearntFactor
}>()
const learning = useLearning()
const now = useNow()
const id = useId()

const choice = computed(() => learning.choiceOf(props.subject, props.factor))
const seen = computed(() => learning.known.get(props.subject)?.seen[props.factor] ?? [])
const learnt = computed(() => props.known ?? learning.learnt(props.subject, props.factor))
const leftOut = computed(() => seen.value.filter((s) => choice.value.leftOut.includes(s.pourId)))
const odd = computed(() => learnt.value?.points.filter((p) => Math.abs(p.z) > ODD_Z) ?? [])
const pieceOf = (pourId: string) => seen.value.find((s) => s.pourId === pourId)?.piece ?? ''

const W = 320
const H = 74
const axis = computed(() =>
  ratioAxis(
    props.factor,
    seen.value.map((s) => s.ratio),
  ),
)
const x = (ratio: number) => rounded(W / 2 + (Math.log(ratio) / axis.value.reachLn) * (W / 2 - 12), 1)
const spread = computed(() => {
  const { factor: f, nextSigmaLn } = learnt.value!
  const [low, high] = [f * Math.exp(-1.28 * nextSigmaLn), f * Math.exp(1.28 * nextSigmaLn)]
  return { x: x(low), width: rounded(x(high) - x(low), 1) }
})
const offBy = (ratio: number) => `${ratio < 1 ? '−' : '+'}${figure(100 * Math.abs(ratio - 1))} %`

const failed = ref(false)
async function choose(change: Partial<typeof choice.value>) {
  failed.value = !(await learning.choose(props.subject, props.factor, { ...choice.value, ...change }))
}
const used = computed({ get: () => !choice.value.off, set: (on) => void choose({ off: !on }) })
const setBack = () => void choose({ ...LEARN_ALL, off: choice.value.off, sinceMs: Math.round(now.value) })
const leaveOut = (pourId: string) => void choose({ leftOut: [...choice.value.leftOut, pourId] })
const takeIn = (pourId: string) => void choose({ leftOut: choice.value.leftOut.filter((p) => p !== pourId) })
</script>

<template>
  <div v-if="seen.length > 0" class="learnt" :data-factor="factor">
    <p v-if="choice.off" class="soft">{{ FACTOR_WORDS[factor].title }}: not learnt from its pours.</p>
    <p v-else-if="learnt && learnt.pours > 0">
      <b>{{ name }}</b> {{ factorSentence(factor, learnt.factor, learnt.pours) }}.
    </p>
    <p v-else class="soft">{{ FACTOR_WORDS[factor].title }}: set back; it learns anew from the next pour.</p>
    <details class="fold">
      <summary>{{ FACTOR_WORDS[factor].title }}: the pours</summary>
      <svg
        v-if="learnt && learnt.pours > 0"
        :viewBox="`0 0 ${W} ${H}`"
        role="group"
        :aria-label="`${FACTOR_WORDS[factor].title}, each pour a point, against what was expected`"
      >
        <rect :x="spread.x" y="6" :width="spread.width" height="42" class="spread" />
        <line
          v-for="t in axis.ticks"
          :key="t"
          :x1="x(t)"
          :x2="x(t)"
          y1="6"
          y2="52"
          :class="{ one: t === 1 }"
          class="tick"
        />
        <text v-for="t in axis.ticks" :key="`t${t}`" :x="x(t)" y="68" text-anchor="middle">
          {{ t === 1 ? 'as expected' : offBy(t) }}
        </text>
        <line :x1="x(learnt.factor)" :x2="x(learnt.factor)" y1="2" y2="52" class="found" />
        <NuxtLink
          v-for="(p, i) in learnt.points"
          :key="p.pourId"
          :to="`/casts/${p.pourId}`"
          :aria-label="`${pieceOf(p.pourId)}, ${dayText(p.atMs, now)}: ${offBy(p.ratio)}`"
        >
          <circle :cx="x(p.ratio)" :cy="14 + ((i * 11) % 30)" r="6" :class="{ odd: Math.abs(p.z) > ODD_Z }">
            <title>{{ pieceOf(p.pourId) }}, {{ dayText(p.atMs, now) }}: {{ offBy(p.ratio) }}</title>
          </circle>
        </NuxtLink>
      </svg>
      <p class="soft">
        The band is where the next one should fall, four times in five. Older pours count less.
      </p>
      <div class="acts">
        <span class="switch">
          <ToggleSwitch v-model="used" :input-id="id" /><label :for="id">Plans go by it</label>
        </span>
        <Button severity="secondary" label="Begin anew" @click="setBack" />
      </div>
      <ul v-if="leftOut.length > 0">
        <li v-for="p in leftOut" :key="p.pourId" class="soft">
          {{ p.piece }} does not count.
          <Button severity="secondary" label="It does" @click="takeIn(p.pourId)" />
        </li>
      </ul>
    </details>
    <p v-for="p in odd" :key="p.pourId" class="odd-one" role="status">
      <NuxtLink :to="`/casts/${p.pourId}`">{{ pieceOf(p.pourId) }}</NuxtLink> is far from the others, at
      {{ offBy(p.ratio) }}, and hardly counts. Was something else the matter?
      <Button severity="secondary" label="Yes, leave it out" @click="leaveOut(p.pourId)" />
    </p>
    <p v-if="failed" class="problem" role="alert">That could not be kept. Try again.</p>
  </div>
</template>

<style scoped>
.learnt {
  display: grid;
  gap: var(--s1);
}
summary {
  min-height: 44px;
  align-items: center;
}
svg {
  width: 100%;
  max-width: 32rem;
  font-size: 12px;
}
.spread {
  fill: var(--wet-light);
  opacity: 0.5;
}
.tick {
  stroke: var(--line);
}
.one {
  stroke: var(--ink-soft);
  stroke-dasharray: 4 3;
}
.found {
  stroke: var(--wet);
  stroke-width: 3;
}
circle {
  fill: var(--wet);
  stroke: #fff;
  stroke-width: 1.5;
}
circle.odd {
  fill: var(--hot);
}
.acts,
.switch,
li {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.odd-one {
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
</style>
