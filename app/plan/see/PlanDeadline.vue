<script setup lang="ts">
/**
 * When one must have left, and whether this pour is out by then: by when the powder goes in, and what would make it fit.
 * Usage: <PlanDeadline v-model="draft" :plan :outcome :stock @pick="pickPlaster" />
 */
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { MS_PER } from '#core/units'
import {
  DEADLINE_WHYS,
  covered,
  deadlineOf,
  deadlineRemedies,
  type DeadlineRemedy,
  type PlanOutcome,
  type PourPlan,
} from '#core/pour'
import { clockText, durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { thicknessOf } from '~/parts/mould/mouldDraft'
import { DEADLINE_WORDS, chanceWords } from '~/parts/words/deadline'
import { plasterChoice } from '../draft/choices'
import type { PlanDraft, Stock } from '../draft/planDraft'
import { planOf } from '../draft/toPlan'
import { useNowBy } from '~/stores/bench'
import { duskOf, nextAt } from './deadlineTime'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome; stock: Stock }>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ pick: [key: string] }>()
const units = useUnits()
const now = useNowBy(MS_PER.min)

const at = computed({
  get: () => (draft.value.deadline ? clockText(draft.value.deadline.leaveAtMs) : ''),
  set: (text) => {
    const leaveAtMs = nextAt(text, now.value)
    draft.value.deadline =
      leaveAtMs === undefined ? null : { why: 'tide', withGround: false, ...draft.value.deadline, leaveAtMs }
  },
})
const why = computed({
  get: () => draft.value.deadline?.why ?? 'tide',
  set: (of) => draft.value.deadline && (draft.value.deadline = { ...draft.value.deadline, why: of }),
})
const withGround = computed({
  get: () => draft.value.deadline?.withGround ?? false,
  set: (yes) => draft.value.deadline && (draft.value.deadline = { ...draft.value.deadline, withGround: yes }),
})

/** Where the print lies, if that was kept. */
const position = computed(() => {
  const id = props.plan.mould.members?.[0]?.mouldId
  return props.stock.moulds.find((m) => m.id === id)?.find?.position ?? undefined
})
const dusk = computed(() => position.value && duskOf(position.value, now.value))
function byDusk() {
  if (dusk.value)
    draft.value.deadline = { withGround: false, ...draft.value.deadline, leaveAtMs: dusk.value, why: 'dusk' }
}

/** If the powder goes in now. */
const mixedNow = computed(() => now.value + (props.outcome.siftS / 2) * MS_PER.s)
const answer = computed(
  () => draft.value.deadline && deadlineOf(draft.value.deadline, props.outcome, mixedNow.value),
)
const powderByMs = computed(() => answer.value && answer.value.mixByMs - (props.outcome.siftS / 2) * MS_PER.s)
const pourByMs = computed(
  () => answer.value && answer.value.mixByMs + props.outcome.problem.pouredAtS * MS_PER.s,
)

/** Other powders that are here, and not the one it is planned in. */
const MOST_OTHERS = 5
const others = computed(() =>
  props.stock.plasters
    .map((p) => ({ key: p.id, name: p.name }))
    .filter(({ key }) => key !== draft.value.plasterKey)
    .slice(0, MOST_OTHERS)
    .flatMap(({ key, name }) => {
      const plan = planOf({ ...draft.value, ...plasterChoice(key, props.stock) }, props.stock, now.value)
      return plan ? [{ key, name, plan }] : []
    }),
)
const remedies = computed(() =>
  draft.value.deadline && answer.value && !answer.value.fits
    ? deadlineRemedies(props.plan, draft.value.deadline, mixedNow.value, others.value)
    : [],
)
function wordsOf({ way }: DeadlineRemedy): string {
  switch (way.id) {
    case 'with_ground':
      return 'Lift it with its ground'
    case 'warmer_water':
      return `Water at ${units.temp(way.waterTempC)}`
    case 'thinner_cover':
      return `${units.size(way.coverMm)} of cover`
    case 'other_plaster':
      return `In ${way.name}`
  }
}
/** Of a print off the shelf this pour alone is poured thinner; one that is described is described so. */
function thinTo(coverMm: number) {
  const { described, source } = draft.value
  if (source !== 'describe') draft.value.coverMm = coverMm
  else described.volume = covered({ ...described, thicknessMm: thicknessOf(described) }, coverMm).volume
}
function take({ way }: DeadlineRemedy) {
  switch (way.id) {
    case 'with_ground':
      withGround.value = true
      return
    case 'warmer_water':
      Object.assign(draft.value, { waterFrom: 'one_tap', waterTempC: way.waterTempC })
      return
    case 'thinner_cover':
      thinTo(way.coverMm)
      return
    case 'other_plaster':
      emit('pick', way.key)
  }
}
</script>

<template>
  <section class="slab deadline" aria-label="By when one must go">
    <div class="pair">
      <label class="field">
        <span>One must have left by</span>
        <InputText v-model="at" type="time" />
      </label>
      <LabelledSelect
        v-if="draft.deadline"
        v-model="why"
        label="Because of"
        :options="DEADLINE_WHYS.map((value) => ({ value, label: DEADLINE_WORDS[value] }))"
      />
    </div>
    <button v-if="dusk && dusk > now" type="button" class="outline-button" @click="byDusk">
      Dusk there is at {{ clockText(dusk) }}
    </button>
    <template v-if="draft.deadline && answer && powderByMs && pourByMs">
      <label class="tick-line"
        ><input v-model="withGround" type="checkbox" /> It is lifted with its ground</label
      >
      <p role="status" data-testid="deadline">
        <b>{{ answer.fits ? 'It fits' : 'It does not fit' }}.</b>
        Powder in by <b class="figure">{{ clockText(powderByMs) }}</b>, poured by
        <b class="figure">{{ clockText(pourByMs) }}</b>, out at
        {{ clockText(answer.mixByMs + (answer.outAtMs - mixedNow)) }}, ten minutes to free it and pack.
      </p>
      <p class="soft">
        {{
          answer.fits
            ? `Begun now it is out at ${clockText(answer.outAtMs)}: ${durationText(answer.spareS)} to spare.`
            : `Begun now it is out at ${clockText(answer.outAtMs)}: ${durationText(-answer.spareS)} too late.`
        }}
        Ready in time {{ chanceWords(answer.chance) }}.
      </p>
      <ul v-if="remedies.length > 0">
        <li v-for="r in remedies" :key="wordsOf(r)">
          <button type="button" class="outline-button" @click="take(r)">{{ wordsOf(r) }}</button>
          <span
            ><b>{{ durationText(r.gainS) }} sooner</b
            ><template v-if="!r.answer.fits">, not yet enough</template>.</span
          >
        </li>
      </ul>
      <p v-else-if="!answer.fits" class="failure">
        Nothing here makes it fit. Photograph and measure it, and leave it; or lift the ground and cast it at
        home.
      </p>
    </template>
    <p v-else class="soft">
      Water that comes back, dusk, a bus: say when, and the plan says by when to pour.
    </p>
  </section>
</template>

<style scoped>
.deadline {
  display: grid;
  gap: var(--s3);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.figure {
  font-size: 1.3rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
li {
  display: grid;
  grid-template-columns: minmax(9rem, 12rem) 1fr;
  gap: var(--s3);
  align-items: center;
}
</style>
