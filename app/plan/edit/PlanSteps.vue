<script setup lang="ts">
/**
 * How the mould is filled, and the steps that follow: put in another order, left out, with the caster's own among them.
 * Usage: <PlanSteps v-model="draft" :plan :problem="noteProblem" />
 */
import { newId } from '~~/shared/newId'
import { ArrowDown, ArrowUp, Plus, X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, useId } from 'vue'
import {
  FILLING_WAYS,
  STEP,
  addLine,
  canMove,
  leftOutOf,
  moveLine,
  scriptOf,
  type FillingWay,
  type KnownStep,
  type OwnStage,
  type PourPlan,
  type ScriptLine,
} from '#core/pour'
import { durationText } from '~/parts/show/time'
import { FILLING_WORDS } from '~/parts/words/steps'
import { stepTitle } from '~/parts/words/stepTitles'
import { fillingChoice } from '../draft/choices'
import { type PlanDraft } from '../draft/planDraft'

const props = defineProps<{
  plan: PourPlan | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })

const WAYS = FILLING_WAYS.map((value) => ({ value, label: FILLING_WORDS[value].label }))
function fill(way: FillingWay) {
  Object.assign(draft.value, fillingChoice(way, draft.value))
}

const lines = computed(() => (props.plan ? scriptOf(props.plan) : []))
const leftOut = computed(() => (props.plan ? leftOutOf(props.plan) : []))
const nameOf = (line: ScriptLine) =>
  'own' in line ? line.own.name : stepTitle({ id: line.step, batch: 0 }, props.plan!)
const keyOf = (line: ScriptLine) => ('own' in line ? line.own.id : line.step)

function edit(order: readonly ScriptLine[], left: readonly KnownStep[] = leftOut.value) {
  draft.value.script = { order: [...order], leftOut: [...left] }
}
const move = (index: number, by: -1 | 1) => edit(moveLine(lines.value, index, by))
function drop(line: ScriptLine) {
  const rest = lines.value.filter((l) => l !== line)
  edit(rest, 'step' in line ? [...leftOut.value, line.step] : leftOut.value)
}
const putBack = (step: KnownStep) =>
  edit(
    lines.value,
    leftOut.value.filter((s) => s !== step),
  )

const PLACES: { value: OwnStage; label: string }[] = [
  { value: 'mould', label: 'Before the water' },
  { value: 'weigh', label: 'Before powder meets water' },
  { value: 'pour', label: 'While pouring' },
]
const adding = ref(false)
const name = ref('')
const nameId = useId()
const place = ref<OwnStage>('pour')
const eachBowl = ref<'each' | 'last'>('last')
const timeMin = ref<number>()
function add() {
  if (name.value.trim() === '') return
  const own = {
    id: newId(),
    name: name.value.trim(),
    stage: place.value,
    timeS: timeMin.value === undefined ? null : Math.round(timeMin.value * 60),
    eachBowl: eachBowl.value === 'each',
  }
  edit(addLine(lines.value, { own }))
  name.value = ''
  timeMin.value = undefined
  adding.value = false
}
</script>

<template>
  <section class="slab" aria-label="Filling">
    <LabelledPills
      :model-value="draft.filling"
      label="How it is filled"
      :options="WAYS"
      @update:model-value="fill"
    />
    <p class="soft small">{{ FILLING_WORDS[draft.filling].what }}</p>
    <details v-if="lines.length > 0">
      <summary>The {{ lines.length }} steps: change their order, leave one out, add your own</summary>
      <ol class="steps">
        <li v-for="(line, i) in lines" :key="keyOf(line)">
          <span class="name"
            >{{ nameOf(line)
            }}<span v-if="'own' in line" class="soft">
              · your own{{ line.own.timeS === null ? '' : `, ${durationText(line.own.timeS)}` }}</span
            ></span
          >
          <span class="acts">
            <button
              type="button"
              :disabled="!canMove(lines, i, -1)"
              :aria-label="`Earlier: ${nameOf(line)}`"
              @click="move(i, -1)"
            >
              <ArrowUp :size="18" aria-hidden="true" />
            </button>
            <button
              type="button"
              :disabled="!canMove(lines, i, 1)"
              :aria-label="`Later: ${nameOf(line)}`"
              @click="move(i, 1)"
            >
              <ArrowDown :size="18" aria-hidden="true" />
            </button>
            <button
              type="button"
              :disabled="'step' in line && !STEP[line.step].mayLeaveOut"
              :aria-label="`Leave out: ${nameOf(line)}`"
              @click="drop(line)"
            >
              <X :size="18" aria-hidden="true" />
            </button>
          </span>
        </li>
      </ol>
      <p v-if="leftOut.length > 0" class="back">
        Left out:
        <Button
          v-for="step in leftOut"
          :key="step"
          size="small"
          severity="secondary"
          :label="`${stepTitle({ id: step, batch: 0 }, plan!)}: put back`"
          @click="putBack(step)"
        />
      </p>
      <Button v-if="!adding" severity="secondary" label="Add a step of your own" @click="adding = true">
        <template #icon><Plus :size="18" aria-hidden="true" /></template>
      </Button>
      <fieldset v-else class="own">
        <legend>A step of your own</legend>
        <div class="pair">
          <div class="field">
            <label :for="nameId">What is done</label>
            <InputText :id="nameId" v-model="name" maxlength="120" autofocus />
          </div>
          <QuantityField
            v-model="timeMin"
            kind="number"
            :decimals="1"
            label="Rings after"
            suffix="min, if at all"
            optional
            :min="0.1"
            :max="360"
            @problem="problem('ownTime', $event)"
          />
        </div>
        <LabelledPills v-model="place" label="When" :options="PLACES" />
        <LabelledPills
          v-if="place === 'pour'"
          v-model="eachBowl"
          label="How often"
          :options="[
            { value: 'each', label: 'With each bowl' },
            { value: 'last', label: 'Once, at the end' },
          ]"
        />
        <Button label="Add it" :disabled="name.trim() === ''" @click="add" />
      </fieldset>
    </details>
  </section>
</template>

<style scoped>
.slab,
details,
.own {
  display: grid;
  gap: var(--s3);
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 600;
  cursor: pointer;
  text-decoration: underline;
}
.steps {
  margin: 0;
  padding-left: 1.8rem;
}
.steps li > * {
  vertical-align: middle;
}
.steps li {
  border-bottom: 1px solid var(--line);
}
.steps li::marker {
  font-weight: 700;
}
.name {
  display: inline-block;
  width: calc(100% - 9rem);
  line-height: 1.2;
}
.acts {
  display: inline-flex;
  justify-content: flex-end;
  width: 9rem;
}
.acts button {
  width: 44px;
  height: 44px;
  border: 0;
  border-radius: 0.6rem;
  background: transparent;
  color: inherit;
  display: grid;
  place-content: center;
  cursor: pointer;
}
.acts button:disabled {
  opacity: 0.25;
  cursor: default;
}
.back {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.own {
  border: 2px dashed var(--line);
  border-radius: 0.8rem;
  padding: var(--s3);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
</style>
