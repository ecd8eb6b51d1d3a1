<script setup lang="ts">
import { computed, ref } from 'vue'
import { dryingAhead, type Stage } from '#core/pour'
import { MS_PER } from '#core/units'
import { useRun } from './useRun'
import { bowlNameOf } from './knock/advance'
import { useUnits } from '~/parts/show/useUnits'
import { groundOf } from '~/parts/show/ground'
import { VERDICT_WORDS } from '~/parts/words/pour'
import { issueWords } from '~/parts/words/mix'

const { id } = defineProps<{ id: string }>()
const units = useUnits()
const run = useRun(id)

/** From the first water to the piece coming out there is something to put a thermometer in. */
const THERMOMETER_STAGES: ReadonlySet<Stage> = new Set(['sift', 'soak', 'stir', 'pour', 'set', 'demould'])
const ending = ref(false)
const fixing = ref(false)
/** From the first water to the piece coming out, something can be put right. */
const fixable = computed(() => run.mode === 'wait' || (run.mode === 'knock' && run.step !== 'prepare'))
const bowlName = computed(() => (run.facts ? bowlNameOf(run.step, run.facts) : ''))
/** Of a drying piece, by the minute: dates do not move faster. */
const minute = computed(() => Math.floor(run.now / MS_PER.min) * MS_PER.min)
const ahead = computed(() => run.facts && run.mode === 'dry' && dryingAhead(run.facts, minute.value))
</script>

<template>
  <div v-if="run.record && run.facts && run.view" class="run" :class="groundOf(run.view.stage)">
    <section class="head" :aria-label="run.record.plan.piece">
      <RunName
        :id="id"
        :facts="run.facts"
        :view="run.view"
        :knocking="run.mode === 'knock'"
        :plan-open="run.planOpen"
      />
      <div class="now">
        <StaleWeighings
          v-if="run.stale"
          :events="run.stale.events"
          :was="run.stale.plan"
          :plan="run.record.plan"
          :now-ms="run.now"
        />
        <template v-else-if="run.words">
          <p v-if="bowlName" class="bowl" data-testid="bowl">{{ bowlName }}</p>
          <h1>{{ run.view.pastWorking ? 'It should have set by now' : run.words.title }}</h1>
          <p v-if="run.mode !== 'wait'" class="how">
            {{
              run.view.pastWorking
                ? 'Go on tapping through what was done, or give it up and say why.'
                : run.step === 'prepare' && run.record.plan.mould.members
                  ? 'For this mould. Tick what is done; what does not apply can stay open.'
                  : run.words.how
            }}
          </p>
        </template>
        <template v-else>
          <h1>{{ run.facts.verdict ? VERDICT_WORDS[run.facts.verdict.verdict] : 'Finished' }}</h1>
          <p class="how">{{ run.facts.verdict?.reason }}</p>
        </template>
        <RunTarget
          v-if="run.weighing.targetG !== undefined && !run.stale"
          :target-g="run.weighing.targetG"
          :phase="run.weighing.phase"
          :scale-name="run.scale.name"
          :gone="run.scale.isGone"
        />
        <RunSet
          v-if="run.mode === 'wait' || run.mode === 'demould'"
          :facts="run.facts"
          :pour-id="id"
          :now-ms="run.now"
        >
          <RunClock
            v-if="run.view.clock"
            :clock="run.view.clock"
            :others="run.view.otherClocks"
            :now-ms="run.now"
          />
        </RunSet>
        <div v-else class="split" :class="{ alone: !run.view.clock, dates: run.mode === 'dry' }">
          <RunClock
            v-if="run.view.clock"
            :clock="run.view.clock"
            :others="run.view.otherClocks"
            :now-ms="run.now"
          />
          <div class="now guide">
            <DryDates v-if="run.mode === 'dry' && ahead" :dates="ahead.dates" :now-ms="run.now" />
            <RunHow
              v-if="run.mode === 'knock' && run.words && !run.stale && !run.view.pastWorking"
              :facts="run.facts"
              :words="run.words"
              :now-ms="run.now"
            />
            <RunGuidance
              v-if="run.mode === 'knock' && !run.stale"
              :facts="run.facts"
              :step="run.step"
              :now-ms="run.now"
              @record="run.put"
            />
          </div>
        </div>
        <RunBeat v-if="run.step === 'tap'" :sound="run.sound" />
        <p
          v-for="issue in run.step === 'start_sift' || run.step === 'weigh_filler' ? run.facts.issues : []"
          :key="issue.code"
          class="issue"
        >
          {{ issueWords(issue, units) }}
        </p>
      </div>
      <div class="aside">
        <RunHeed :plan="run.record.plan" :stage="run.view.stage" />
        <div v-if="run.cautions.length > 0" class="aside cautions">
          <CautionNote v-for="caution in run.cautions" :id="caution" :key="caution" />
        </div>
        <RunScales
          v-if="run.weighing.isNow && !run.stale"
          :weighing="run.weighing"
          :scale="run.scale"
          :buttons="run.buttons"
        />
        <RunThermometers
          v-if="run.step && THERMOMETER_STAGES.has(run.view.stage)"
          :pour-id="id"
          :batch="run.facts.batch"
          @record="run.put"
        />
        <WayOut v-if="run.mode === 'wait' || run.mode === 'demould'" :plan="run.record.plan" />
        <template v-if="run.mode === 'dry' && ahead">
          <RunFinish :facts="run.facts" :tasks="ahead.tasks" :now-ms="run.now" @record="run.put" />
          <RunWhere :facts="run.facts" :ahead="ahead" :now-ms="run.now" @record="run.put" />
        </template>
        <RunNoise v-if="run.mayBeNoise" :noise="run.noise" />
        <RunAfter
          v-if="run.mode === 'wait'"
          :facts="run.facts"
          :pour-id="id"
          :now-ms="run.now"
          :soft-window="run.view.otherClocks.find((c) => c.id === 'soft_window')"
          @record="run.put"
        />
      </div>
    </section>

    <div
      class="dock"
      :class="{ low: run.mode === 'wait' || run.mode === 'dry', lower: run.mode === 'demould' }"
    >
      <RunTools
        v-model:ending="ending"
        :can-undo="run.facts.live.length > 0"
        :batch="run.facts.batch"
        :fixable="fixable"
        :ended="run.mode === 'ended'"
        :drying="run.mode === 'dry'"
        :moulds="run.mode === 'demould' || run.mode === 'dry' ? (run.record.plan.mould.members ?? []) : []"
        @record="run.put(...$event)"
        @undo="run.undo"
        @fix="fixing = true"
      />
      <section v-if="run.stale" class="answers" aria-label="Does it hold?">
        <button type="button" @click="run.keepStale">It holds for this plan</button>
        <button type="button" @click="run.dropStale">Take it back</button>
      </section>
      <RunPool
        v-else
        :facts="run.facts"
        :step="run.step"
        :mode="run.mode"
        :action="run.action"
        :weighing="run.weighing"
        :now-ms="run.now"
        :record-path="`/casts/${id}`"
        :can-undo="run.facts.live.length > 0"
        @knock="run.knock"
        @undo="run.undo"
        @record="run.put"
        @mass="run.weighing.massG = $event"
        @problem="run.weighing.problem = $event"
        @finish="ending = true"
      />
    </div>
    <RunFix
      v-model="fixing"
      :facts="run.facts"
      :step="run.step"
      :now-ms="run.now"
      @record="run.put(...$event)"
    />
    <p class="visually-hidden" role="status">{{ run.said }}</p>
  </div>
  <div v-else class="page missing">
    <h1>{{ run.unreadable ? 'This pour cannot be read' : run.failure || 'Fetching the pour…' }}</h1>
    <NuxtLink v-if="run.unreadable" :to="`/casts/${id}`">See it as it lies there</NuxtLink>
    <NuxtLink v-else-if="run.failure" to="/">Back to the bench</NuxtLink>
  </div>
</template>

<style scoped>
.run {
  flex: 1;
  display: grid;
  grid-template-rows: 1fr auto;
}
/* The tools and the target stay in reach whatever stands above them. */
.dock {
  position: sticky;
  bottom: 0;
  display: grid;
  grid-template-rows: auto minmax(40dvh, auto);
  background: var(--ground);
}
/* While it sets there is nothing to knock for: what is to be seen has the room. */
.dock.low {
  grid-template-rows: auto auto;
}
.dock.lower {
  grid-template-rows: auto minmax(28dvh, auto);
}
.answers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s4);
  padding: var(--s5) var(--s6);
  background: var(--pool-colour);
  color: var(--on-pool);
  border-radius: var(--pool) var(--pool) 0 0;
}
.answers button {
  min-height: 7rem;
  border: 2px solid currentColor;
  border-radius: 1.4rem;
  background: transparent;
  color: inherit;
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.3rem, 4vw, 2.2rem);
  cursor: pointer;
}
.head {
  display: grid;
  grid-template-columns: 9rem 1fr minmax(14rem, 18rem);
  gap: var(--s5) var(--s6);
  padding: var(--s4) var(--s6);
  align-items: start;
}
.bowl {
  font-weight: 700;
}
.how {
  color: var(--on-ground-soft);
}
.now {
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.split {
  display: grid;
  grid-template-columns: auto minmax(15rem, 1fr);
  gap: var(--s3) var(--s5);
  align-items: start;
}
.split.dates {
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
}
.split.alone {
  grid-template-columns: 1fr;
}
.aside {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
h1 {
  font-size: clamp(1.9rem, 3.4vw, 2.6rem);
}
.how {
  font-size: 1.15rem;
  max-width: 52ch;
}
.issue {
  background: var(--warm-light);
  color: var(--ink);
  border-radius: 0.6rem;
  border-left: 6px solid var(--warm);
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
.missing {
  display: grid;
  gap: var(--s4);
}
@media (max-width: 72rem) {
  .head {
    grid-template-columns: 9rem 1fr;
  }
  .aside {
    grid-column: 1 / -1;
  }
}
@media (max-width: 56rem) {
  .split,
  .split.dates {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 43rem) {
  .head {
    grid-template-columns: 1fr;
    gap: var(--s3);
    padding: var(--s4);
  }
  h1 {
    font-size: 1.6rem;
  }
  .how {
    font-size: 1rem;
  }
  .dock {
    grid-template-rows: auto auto;
  }
  /* One column in the order of need: what to do, its clock, what can hurt, then how in full and the devices. */
  .head {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    padding-bottom: var(--s5);
  }
  .head > .now,
  .head > .aside,
  .split {
    display: contents;
  }
  .cautions {
    order: 1;
  }
  .guide,
  .aside > :not(.cautions) {
    order: 2;
  }
}
</style>
