<script setup lang="ts">
/** Why the piece came out as it was noted, from its own record, and what to do next time. Usage: <WhyThis :facts :pour-id /> */
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, ref, useId } from 'vue'
import { CLEAR_LN_RATIO, type CauseFound, type CauseId } from '#core/finish'
import { diagnosePour, faultsOf, keptCauses, staysWith, type PourOutlook } from '#core/pour'
import { percent } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { CAUSE_WORDS, signWords } from '~/parts/words/causes'
import { FAULT_WORDS } from '~/parts/words/faults'
import { keptWithAllWords } from '~/parts/words/heeds'
import { usePours } from '~/stores/pours'
import WhyAsks from './WhyAsks.vue'
import { chanceWords } from './words'

const props = defineProps<{ facts: PourOutlook; pourId: string }>()
const units = useUnits()
const pours = usePours()
const id = useId()

const noted = computed(() => faultsOf(props.facts).length > 0)
const found = computed(() => diagnosePour(props.facts))
/** Those worth reading at once; the others stay open, one press away. */
const LIKELY = 0.2
const MOST_SHOWN = 4
const first = computed(() => {
  const likely = found.value.causes.filter((c) => c.chance >= LIKELY)
  return (likely.length > 0 ? likely : found.value.causes.slice(0, 2)).slice(0, MOST_SHOWN)
})
const others = computed(() => found.value.causes.filter((c) => !first.value.includes(c)))

/** Accepted: each stays with what it is of, and later plans heed it. */
const kept = computed(() => keptCauses(props.facts))
const acceptedIn = computed(() =>
  props.facts.live.flatMap(({ id: eventId, body }) =>
    body.type === 'cause_kept' ? [{ eventId, cause: body.cause }] : [],
  ),
)
/** Until somebody chooses: what was accepted, else what is more likely than not. */
const choice = ref<CauseId[]>()
/** What was called mended since is not accepted any more; what stays with nothing cannot be. */
const accepted = computed(() =>
  [...new Set(acceptedIn.value.map((a) => a.cause))].filter(
    (cause) => kept.value.some((k) => k.cause === cause) || staysWith(props.facts, cause).length === 0,
  ),
)
const heed = computed({
  get: () =>
    choice.value ??
    (accepted.value.length > 0
      ? accepted.value
      : found.value.causes.filter((c) => c.chance > 0.5).map((c) => c.cause)),
  set: (causes) => (choice.value = causes),
})
const isSaid = computed(
  () => heed.value.length === accepted.value.length && heed.value.every((c) => accepted.value.includes(c)),
)
function accept() {
  const added = heed.value.filter((c) => !accepted.value.includes(c))
  const dropped = acceptedIn.value.filter((a) => !heed.value.includes(a.cause))
  void pours.record(
    props.pourId,
    ...added.map((cause) => ({ type: 'cause_kept' as const, cause })),
    ...dropped.map(({ eventId: targetId }) => ({ type: 'void' as const, targetId })),
  )
  choice.value = undefined
}
const staysWhere = computed(() => keptWithAllWords(kept.value.map((k) => k.subject)))
const nextPlan = computed(() => ({
  path: '/plan',
  query: { from: props.pourId, ...(accepted.value.length > 0 ? { heed: accepted.value.join() } : {}) },
}))
const isClear = computed(() => found.value.causes.some((c) => c.for.some((e) => e.lnRatio >= CLEAR_LN_RATIO)))
const besides = computed(() =>
  found.value.besides
    .map((c) => `${CAUSE_WORDS[c.cause].name} (${c.for.map((e) => signWords(e, units)).join('; ')}).`)
    .join(' '),
)
const names = (cause: CauseFound) => cause.explains.map((f) => FAULT_WORDS[f].toLowerCase()).join(', ')
</script>

<template>
  <section v-if="noted" class="slab why" aria-labelledby="why-title">
    <h2 id="why-title">Why</h2>
    <p v-if="found.clean" data-testid="clean-record">
      <b>The record is clean.</b> Nothing in it speaks clearly for a cause. What it does not tell stays open:
    </p>
    <p v-else-if="!isClear">
      <b>Nothing on record clearly explains what shows.</b> What it does not tell stays open:
    </p>
    <WhyAsks v-if="!isClear" :facts :pour-id />
    <ul class="causes">
      <li v-for="cause in first" :key="cause.cause" :data-cause="cause.cause">
        <div class="head">
          <h3>{{ CAUSE_WORDS[cause.cause].name }}</h3>
          <span class="chance">{{ chanceWords(cause.chance) }}, {{ percent(cause.chance) }}</span>
          <span class="bar" aria-hidden="true"
            ><i :style="{ width: percent(cause.chance).replace(' ', '') }"
          /></span>
        </div>
        <p class="soft">Would show as {{ names(cause) }}.</p>
        <ul class="signs">
          <li v-for="e in cause.for" :key="e.sign" class="for"><b>For:</b> {{ signWords(e, units) }}</li>
          <li v-for="e in cause.against" :key="e.sign"><b>Against:</b> {{ signWords(e, units) }}</li>
          <li v-if="cause.for.length + cause.against.length === 0" class="soft">
            The record says nothing of it, either way.
          </li>
        </ul>
        <div class="next">
          <Checkbox v-model="heed" :input-id="`${id}-${cause.cause}`" :value="cause.cause" />
          <label :for="`${id}-${cause.cause}`"><b>Next time:</b> {{ CAUSE_WORDS[cause.cause].next }}</label>
        </div>
      </li>
    </ul>
    <WhyAsks v-if="isClear" :facts :pour-id />
    <div class="act">
      <Button
        label="Keep it in mind from now on"
        :disabled="isSaid"
        :severity="isSaid ? 'secondary' : undefined"
        @click="accept"
      />
      <Button
        v-if="accepted.length > 0"
        as="router-link"
        :to="nextPlan"
        severity="secondary"
        label="Plan it again"
      />
    </div>
    <p v-if="kept.length > 0" role="status" data-testid="kept">
      It stays with {{ staysWhere }}: every later plan says and sets it, until you say that it is mended.
    </p>
    <p v-else-if="accepted.length > 0" role="status">
      Nothing of this pour is on a shelf for it to stay with: it goes into the plan made from here.
    </p>
    <p v-if="found.besides.length > 0" data-testid="besides">
      <b>Also on record, though it seldom causes such a fault:</b>
      {{ besides }}
    </p>
    <details v-if="others.length > 0">
      <summary>Not ruled out: {{ others.length }} more</summary>
      <ul class="rest">
        <li v-for="cause in others" :key="cause.cause">
          <b>{{ CAUSE_WORDS[cause.cause].name }}</b>
          <span class="soft">
            {{ percent(cause.chance)
            }}{{ [...cause.for, ...cause.against].length === 0 ? ': nothing on record' : '' }}
          </span>
          <span v-for="e in [...cause.for, ...cause.against]" :key="e.sign" class="soft"
            >· {{ signWords(e, units) }}
          </span>
          <div class="next">
            <Checkbox v-model="heed" :input-id="`${id}-${cause.cause}`" :value="cause.cause" />
            <label :for="`${id}-${cause.cause}`">Next time: {{ CAUSE_WORDS[cause.cause].next }}</label>
          </div>
        </li>
        <li><b>Something else</b> <span class="soft">{{ percent(found.other) }}</span></li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.why {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
  justify-items: start;
}
.causes,
.signs,
.rest {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 100%;
}
.causes {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(24rem, 100%), 1fr));
  gap: var(--s4);
}
.causes > li {
  display: grid;
  align-content: start;
  gap: var(--s2);
  border-top: 3px solid var(--wet);
  padding-top: var(--s2);
}
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: var(--s1) var(--s3);
  align-items: baseline;
}
h3 {
  font-size: 1.15rem;
}
.chance {
  font-weight: 600;
}
.bar {
  grid-column: 1 / -1;
  height: 0.5rem;
  border-radius: 1rem;
  background: var(--line);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--wet);
}
.for b {
  color: var(--hot);
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.next {
  display: flex;
  gap: var(--s3);
  align-items: flex-start;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
.rest li {
  padding: var(--s1) 0;
}
</style>
