<script setup lang="ts">
/** From nothing to a bucket that works: three questions, the plan they come to, and the way to the pour. */
import { newId } from '~~/shared/newId'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { LEAST_SCOOP_ML, MOST_SCOOP_ML, MOST_STOCKED_G } from '#core/bounds'
import { SIFT_STAGES, consistencyBySifting, siftingLook, type RatioMethod } from '#core/mix'
import type { LabelReading } from '#core/plaster'
import { evaluatePlan, type PourPlan } from '#core/pour'
import { useProblems } from '~/parts/form/useProblems'
import { useUnits } from '~/parts/show/useUnits'
import { SIFT_STAGE_WORDS } from '~/parts/words/mix'
import { planSentence, sentenceText } from '~/parts/words/planSentence'
import { useClock } from '~/stores/bench'
import { useKept, useKeptHere } from '~/stores/kept'
import { useWorkshop } from '~/stores/workshop'
import { emptyDraft, type PlanDraft } from '../draft/planDraft'
import { planOf } from '../draft/toPlan'
import { useLearntOfPlan } from '../useLearntOfPlan'
import { usePlanStock } from '../usePlanStock'
import { useSavePlan } from '../useSavePlan'
import {
  QUICK_FILLS,
  classOf,
  firstAnswers,
  goesByEye,
  keepsMould,
  quickDraft,
  stockWith,
  wanting,
  type QuickAnswers,
} from './answers'
import { useKeepCards } from './useKeepCards'
import { usePowders } from './usePowders'
import { FILL_WORDS, MEASURE_WORDS } from './words'

const workshop = useWorkshop()
const units = useUnits()
const stock = usePlanStock()
await workshop.ready

// A reload or a closed lid loses nothing that was said.
const answers = useKeptHere<QuickAnswers>(
  'nine-ripples.quick',
  firstAnswers(stock, () => newId()),
  { mergeDefaults: true },
)
const problems = useProblems()

const fills = computed(() =>
  QUICK_FILLS.filter((f) => f !== 'shelf' || workshop.moulds.length > 0).map((value) => ({
    value,
    ...FILL_WORDS[value],
  })),
)
/** What of a way has to be measured; the rest is as usual. */
const ASKED: Partial<Record<QuickAnswers['fill'], readonly string[]>> = {
  water: ['volumeMl'],
  ground: ['diameterMm', 'printDepthMm', 'coverMm'],
  bucket: ['volumeMl'],
}
const described = computed(() => {
  const { fill } = answers.value
  return fill === '' || fill === 'shelf' ? undefined : fill
})
const mouldOptions = computed(() => workshop.moulds.map((m) => ({ value: m.id, label: m.name })))

const { shownPowders, morePowders, classes, powder, classId, nothingHere } = usePowders(answers)

const measures = computed(() =>
  (Object.keys(MEASURE_WORDS) as RatioMethod[])
    .filter((m) => m !== 'by_eye' || goesByEye(classId.value))
    .map((value) => ({ value, ...MEASURE_WORDS[value] })),
)
const stages = computed(() => {
  const id = classId.value ?? 'pottery'
  return SIFT_STAGES.map((value) => {
    const waterG = consistencyBySifting(id, value).mid
    return {
      value,
      name: SIFT_STAGE_WORDS[value].name,
      how: `about ${Math.round(waterG)} to 100`,
      look: siftingLook({ classId: id, waterG, powderG: 100 }, 1),
    }
  })
})

/** What is known of a cup until another is named. */
const cupMl = computed({
  get: () => answers.value.scoopMl ?? draft.value.scoop.measureMl,
  set: (ml: number | undefined) => (answers.value.scoopMl = ml ?? null),
})

function typed(text: string) {
  answers.value.printed = text
  answers.value.reading = null
}
const read = (reading: LabelReading) => (answers.value.reading = reading)

const clock = useClock()
const openedMs = clock.nowMs()
const shelf = computed(() => stockWith(answers.value, stock))
const draft = computed<PlanDraft>(
  () => quickDraft(answers.value, stock, openedMs) ?? emptyDraft(stock.settings),
)
const wants = computed(() => wanting(answers.value))
const plan = computed<PourPlan | undefined>(() =>
  wants.value.length === 0 ? planOf(draft.value, shelf.value, openedMs) : undefined,
)
const evaluation = computed(() => plan.value && evaluatePlan(plan.value))
const outcome = computed(() => (evaluation.value?.ok ? evaluation.value.outcome : undefined))
const sentence = computed(() => plan.value && sentenceText(planSentence(plan.value, units)))
/** Who has no jug has the mould: so much of it in water. */
const waterPct = computed(() =>
  plan.value && outcome.value && answers.value.fill === 'water'
    ? Math.round((100 * outcome.value.weighOut.waterG) / plan.value.mould.cavityMl)
    : undefined,
)

const came = useTemplateRef<HTMLElement>('came')
// What three answers come to is further down on a phone.
watch(
  () => plan.value !== undefined,
  async (now) => {
    await nextTick()
    if (now) came.value?.scrollIntoView({ block: 'nearest' })
  },
)

const learnt = useLearntOfPlan(draft, plan)
const { save, busy, failure } = useSavePlan({
  draft,
  plan,
  isSound: () => evaluation.value?.ok === true && problems.none.value,
  isWhole: learnt.arrived,
  changing: undefined,
  onTaken: () => (answers.value = firstAnswers(stock, () => newId())),
})
const { keepCards, keepFailure } = useKeepCards(answers)
const keeping = ref(false)
async function take() {
  keeping.value = true
  const kept = await keepCards()
  keeping.value = false
  if (kept) await save()
}

/** The same on the whole worksheet, where all of it can be changed. */
const worksheet = useKept<PlanDraft>('nine-ripples.plan-draft.5', emptyDraft(stock.settings), {
  mergeDefaults: true,
})
async function seeAll() {
  if (!(await keepCards())) return
  worksheet.value = { ...draft.value }
  await nextTick()
  await navigateTo('/plan')
}
</script>

<template>
  <form class="page quick" novalidate @submit.prevent>
    <div class="both">
      <div class="asks">
        <header>
          <h1>A bucket that works</h1>
          <p class="soft">
            Three questions. The rest is worked out, and every bit of it can be changed after.
          </p>
        </header>

        <fieldset>
          <legend><span class="figure">1</span> What do you fill?</legend>
          <QuickTiles v-model="answers.fill" name="fill" :tiles="fills" />
          <LabelledSelect
            v-if="answers.fill === 'shelf'"
            v-model="answers.shelfId"
            label="Which mould"
            :options="mouldOptions"
          />
          <div v-else-if="described" class="told">
            <MethodFields
              :key="described"
              v-model="answers.methods[described]"
              :only="ASKED[described]"
              @problem="(field, message) => problems.note(`fill ${field}`, message)"
            />
            <label v-if="keepsMould(described)" class="field"
              ><span>Keep the mould as</span>
              <InputText
                v-model="answers.mouldName"
                placeholder="empty: it is not kept"
                maxlength="120"
                autocomplete="off"
            /></label>
          </div>
        </fieldset>

        <fieldset>
          <legend><span class="figure">2</span> Which powder?</legend>
          <QuickTiles v-if="shownPowders.length > 0" v-model="powder" name="powder" :tiles="shownPowders" />
          <LabelledSelect
            v-if="morePowders.length > 0"
            v-model="powder"
            label="Another of this workshop"
            :options="morePowders"
          />
          <details :open="nothingHere || classOf(answers) !== undefined">
            <summary>
              {{ nothingHere ? 'By what its bag says it is' : 'One that is not here yet' }}
            </summary>
            <QuickTiles v-model="powder" name="powder" :tiles="classes" />
          </details>
          <div v-if="classId" class="told">
            <LabelReadingField
              :model-value="answers.printed"
              label="What its bag says, or the ratio you go by, if any"
              :class-id="classId"
              @update:model-value="typed"
              @reading="read"
            />
            <template v-if="classOf(answers)">
              <label class="field"
                ><span>Keep the powder as</span>
                <InputText
                  v-model="answers.plasterName"
                  placeholder="empty: it is not kept"
                  maxlength="120"
                  autocomplete="off"
              /></label>
              <QuantityField
                v-if="answers.plasterName.trim() !== ''"
                v-model="answers.bagG"
                kind="mass"
                label="A full bag of it holds"
                optional
                :min="10"
                :max="MOST_STOCKED_G"
                @problem="problems.note('powder bag', $event)"
              />
            </template>
          </div>
        </fieldset>

        <fieldset>
          <legend><span class="figure">3</span> How do you measure?</legend>
          <QuickTiles v-model="answers.measure" name="measure" :tiles="measures" />
          <div v-if="answers.measure === 'by_volume'" class="told">
            <QuantityField
              v-model="cupMl"
              kind="volume"
              label="Your cup holds"
              :min="LEAST_SCOOP_ML"
              :max="MOST_SCOOP_ML"
              @problem="problems.note('measure scoop', $event)"
            />
            <p class="soft">Asked once: the workshop keeps it.</p>
          </div>
          <template v-else-if="answers.measure === 'by_eye'">
            <p>Sift into still water until it looks like</p>
            <QuickTiles v-model="answers.stage" name="stage" :tiles="stages" />
          </template>
        </fieldset>
      </div>

      <section ref="came" class="came" aria-label="What it comes to">
        <template v-if="plan && evaluation">
          <p class="sentence">{{ sentence }}</p>
          <div class="act">
            <p v-if="outcome" class="brief" aria-hidden="true">
              <b>{{ units.mass(outcome.weighOut.waterG) }}</b> water ·
              <b>{{ units.mass(outcome.weighOut.powderG) }}</b> plaster
            </p>
            <p v-if="failure || keepFailure" class="failure" role="alert">{{ failure || keepFailure }}</p>
            <Button
              type="button"
              class="go"
              label="Take it to the bench"
              :disabled="!evaluation.ok || !problems.none.value || busy || keeping"
              @click="take"
            />
          </div>
          <PlanResult :plan="plan" :evaluation="evaluation" :stale="!problems.none.value" />
          <p v-if="waterPct" class="by-mould">
            No jug? Fill the mould to <b>{{ waterPct }} %</b> with water: that is the water for it.
          </p>
        </template>
        <div v-else class="slab wait">
          <MixLook :look="siftingLook({ classId: 'pottery', waterG: 70, powderG: 100 }, 0.4)" />
          <p class="soft">
            {{
              wants.length === 3
                ? 'Water and powder for it stand here when the three are answered.'
                : `Still to say: ${wants.map((w) => ({ fill: 'what you fill', powder: 'which powder', measure: 'how you measure' })[w]).join(', ')}.`
            }}
          </p>
        </div>
      </section>
    </div>
    <section v-if="plan" class="then" aria-label="The way to the pour">
      <QuickWay v-if="outcome" :plan="plan" :outcome="outcome" />
      <CautionNotes :plan="plan" />
      <Button type="button" severity="secondary" label="See and change all of it" @click="seeAll" />
    </section>
  </form>
</template>

<style scoped>
.quick {
  width: 100%;
  display: grid;
  gap: var(--s5);
}
/* What follows stands apart: what keeps to the top covers none of it. */
.both {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 5fr);
  gap: var(--s5);
  align-items: start;
}
.asks,
.came,
.then,
fieldset,
.told {
  display: grid;
  gap: var(--s3);
  min-width: 0;
}
.asks {
  gap: var(--s5);
}
header {
  display: grid;
  gap: var(--s1);
}
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0 0 var(--s2);
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.3rem;
}
legend .figure {
  color: var(--wet);
  margin-right: var(--s2);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.came {
  position: sticky;
  top: var(--s4);
}
.sentence {
  font-family: var(--display);
  font-size: 1.18rem;
  line-height: 1.45;
  text-wrap: pretty;
}
.act {
  display: grid;
  gap: var(--s2);
}
.brief {
  display: none;
  line-height: 1.2;
}
.then {
  gap: var(--s4);
  justify-items: start;
}
.go {
  width: 100%;
  font-size: 1.1rem;
}
.by-mould {
  font-size: 1.08rem;
}
.wait {
  display: grid;
  justify-items: center;
  text-align: center;
  gap: var(--s3);
}
summary {
  cursor: pointer;
  min-height: 44px;
  font-weight: 600;
}
@media (max-width: 60rem) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
  .came {
    position: static;
    scroll-margin-top: var(--s3);
  }
  /* As on the whole plan: it keeps to the top, with what it comes to. */
  .act {
    position: sticky;
    top: 0;
    z-index: 2;
    padding: var(--s2) 0;
    background: var(--chalk);
    grid-template-columns: 1fr auto;
    align-items: center;
  }
  .act .failure {
    grid-column: 1 / -1;
  }
  .brief {
    display: block;
  }
  .go {
    width: auto;
  }
}
</style>
