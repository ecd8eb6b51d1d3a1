<script setup lang="ts">
/** The weigh-out on one sheet of paper: what, in which bowl, then step by step. Usage: <WeighOutCard :plan :title /> */
import { computed } from 'vue'
import { airTacticsOf, evaluatePlan, preparationsOf, soakTimeS, type PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { ADDING_WORDS, STIR_SIGNS } from '~/parts/words/mix'
import { PREPARATION_WORDS, TACTIC_WORDS } from '~/parts/words/mould'
import { durationText, minutesText } from '~/parts/show/time'
import { issueWords } from '~/parts/words/mix'
import { planSentence, sentenceText } from '~/parts/words/planSentence'
import { stepWords } from '~/parts/words/steps'

const props = defineProps<{ plan: PourPlan; title: string }>()
const units = useUnits()
const workshop = useWorkshop()
const evaluation = computed(() => evaluatePlan(props.plan))
const outcome = computed(() => (evaluation.value.ok ? evaluation.value.outcome : undefined))
const purposes = computed(() => [...new Set((props.plan.mould.members ?? []).map((m) => m.purpose))])
const soakS = computed(() => soakTimeS(props.plan))
</script>

<template>
  <article class="paper">
    <header>
      <h1>{{ title }}</h1>
      <p>{{ sentenceText(planSentence(plan, units)) }} {{ workshop.settings.workshopName }}</p>
    </header>
    <p v-for="issue in evaluation.issues" :key="issue.code">{{ issueWords(issue, units) }}</p>
    <template v-if="outcome">
      <WeighOut :plan="plan" :outcome="outcome" />
      <p>Makes {{ units.volume(outcome.weighOut.slurryMl) }} for {{ units.volume(plan.mould.cavityMl) }}.</p>
      <div class="lists">
        <section>
          <h2>To make ready</h2>
          <ul class="boxes">
            <li v-for="p in preparationsOf(plan)" :key="p">{{ PREPARATION_WORDS[p] }}</li>
          </ul>
        </section>
        <section>
          <h2>Then</h2>
          <ol>
            <li>
              <b>{{ ADDING_WORDS[plan.addingWay ?? 'sifted'] }}.</b>
              {{ stepWords({ id: 'start_sift', batch: 0 }, plan).how }}
            </li>
            <li v-if="soakS > 0">Soak <b>{{ durationText(soakS) }}</b>; close the bag meanwhile.</li>
            <li>
              {{ plan.addingWay === 'kneaded' ? 'Knead' : 'Stir' }} about
              <b>{{ durationText(plan.stirS) }}</b>.
              <template v-for="p in purposes" :key="p">{{ STIR_SIGNS[p] }} </template>
            </li>
            <li v-for="t in airTacticsOf(plan)" :key="t">{{ TACTIC_WORDS[t] }}</li>
            <li>
              Pour within <b>{{ minutesText(Math.max(0, outcome.pourWindowS.low)) }}</b>;
              <template v-if="outcome.flow.tapping.tapS > 0"
                >tap <b>{{ durationText(outcome.flow.tapping.tapS) }}</b>.</template
              ><template v-else>it thickens too soon for tapping to help.</template>
            </li>
            <li>Out after <b>{{ durationText(outcome.demould.recommendedS) }}</b>.</li>
          </ol>
        </section>
      </div>
      <p class="soft">
        Respirator while powder is dry, and again for the bag. Never any part of a body in plaster. Nothing
        into a drain. The maker’s data sheet comes first.
      </p>
    </template>
  </article>
</template>

<style scoped>
ol {
  margin: 0;
  padding-left: 1.3rem;
}
@media print {
  .paper {
    padding: 0;
    border-radius: 0;
  }
}
@media (max-width: 43rem) {
  .paper {
    padding: var(--s4);
  }
}
</style>
