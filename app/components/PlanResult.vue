<script setup lang="ts">
/** What the worksheet comes to: what to weigh, the timeline, what it becomes. Usage: <PlanResult :plan :evaluation /> */
import { computed } from 'vue'
import { inScoops } from '#core/mix'
import type { PlanEvaluation, PourPlan } from '#core/pour'
import { useUnits } from '~/composables/useUnits'
import { cautionsOfPlan } from '~/utils/cautions'
import { durationRangeText, durationText } from '~/utils/time'
import { DRY_TARGET_WORDS, SIFT_STAGE_WORDS, issueWords } from '~/utils/words'

const props = defineProps<{ plan: PourPlan; evaluation: PlanEvaluation; stale: boolean }>()
const units = useUnits()
const outcome = computed(() => (props.evaluation.ok ? props.evaluation.outcome : undefined))
const FRACTIONS = ['', '¼', '½', '¾']
/** Powder to a quarter of a scoop, since nobody fills one better; water by the jug. */
const scoops = computed(() => {
  if (!outcome.value || !props.plan.scoop) return undefined
  const { classId } = props.plan.plaster.properties
  const powder = inScoops(outcome.value.weighOut.powderG, classId, props.plan.scoop)
  const quarters = Math.max(1, Math.round(powder * 4))
  return {
    text: `${quarters >= 4 ? Math.floor(quarters / 4) : ''}${FRACTIONS[quarters % 4]}`,
    coarse: Math.abs(quarters / 4 / powder - 1) > 0.05,
  }
})
const window = computed(() => outcome.value?.pourWindowS)
</script>

<template>
  <div class="result" :class="{ stale }">
    <p v-if="stale" class="warn" role="status">
      Something on the left cannot be read yet: these are the last figures that could.
    </p>
    <p
      v-for="issue in evaluation.issues"
      :key="issue.code"
      class="warn"
      :class="issue.severity"
      role="status"
    >
      {{ issueWords(issue, units) }}
    </p>
    <template v-if="outcome">
      <section class="slab ground-wet card" aria-label="Weigh out">
        <div class="out">
          <div class="amounts">
            <div>
              <span class="what">Water</span>
              <span class="figure amount" data-testid="water">{{ units.mass(outcome.weighOut.waterG) }}</span>
              <span class="other">{{ units.massOther(outcome.weighOut.waterG) }}</span>
            </div>
            <div>
              <span class="what">Plaster</span>
              <span class="figure amount" data-testid="powder">{{
                units.mass(outcome.weighOut.powderG)
              }}</span>
              <span class="other">{{ units.massOther(outcome.weighOut.powderG) }}</span>
            </div>
            <div v-if="outcome.weighOut.fillerG > 0">
              <span class="what">Silica</span>
              <span class="figure amount">{{ units.mass(outcome.weighOut.fillerG) }}</span>
              <span class="other">{{ units.massOther(outcome.weighOut.fillerG) }}</span>
            </div>
          </div>
          <p class="makes">
            Makes <b>{{ units.volume(outcome.weighOut.slurryMl) }}</b> of slurry for a mould of
            <b>{{ units.volume(plan.mould.cavityMl) }}</b>, at about
            <b>{{ units.temp(outcome.mixTempC) }}</b>. Bowl of at least
            <b>{{ units.volume(outcome.weighOut.bowlMl) }}</b>.
          </p>
          <p v-if="scoops" class="makes" data-testid="scoops">
            By scoop: <b>{{ scoops.text }}</b> of {{ units.volume(plan.scoop!.measureMl) }} to
            <b>{{ units.volume(outcome.weighOut.waterG) }}</b> of water.
            <template v-if="scoops.coarse">A smaller scoop would come closer.</template>
          </p>
          <p v-if="plan.siftStage" class="makes">
            By eye: the water, then sift to “{{ SIFT_STAGE_WORDS[plan.siftStage].name.toLowerCase() }}”; about
            this much plaster goes in.
          </p>
          <p
            v-if="plan.mould.plusMinusMl && plan.mould.plusMinusMl > outcome.leftover.leftMl"
            class="short-of"
          >
            The volume is known to ± {{ units.roughVolume(plan.mould.plusMinusMl) }}, the spare is
            {{ units.roughVolume(outcome.leftover.leftMl) }}: it may run short. Measure better, or take more
            spare.
          </p>
          <p v-if="outcome.leftover.fills.length > 0" class="makes" data-testid="leftover">
            About {{ units.roughVolume(outcome.leftover.leftMl) }} is left:
            <template v-for="(fill, i) in outcome.leftover.fills" :key="fill.mouldId"
              ><template v-if="i > 0">, then </template><b>{{ fill.name }}</b> ({{
                units.roughVolume(fill.fillMl)
              }})</template
            ><template v-if="outcome.leftover.restMl >= 1"
              >; {{ units.roughVolume(outcome.leftover.restMl) }} stays in the bowl</template
            >.
          </p>
          <p v-else-if="outcome.leftover.leftMl >= 1" class="makes" data-testid="leftover">
            About {{ units.roughVolume(outcome.leftover.leftMl) }} is left in the bowl<template
              v-if="plan.spill?.length"
              >: too little for any spill mould</template
            >.
          </p>
        </div>
        <BowlPicture
          :bowl-ml="outcome.weighOut.bowlMl"
          :water-ml="outcome.weighOut.waterG"
          :slurry-ml="outcome.weighOut.slurryMl"
          label="Bowl with its water line and slurry line"
        />
      </section>
      <section class="slab" aria-label="Timeline">
        <div class="heading">
          <h2>When it sets</h2>
          <p v-if="window">
            <template v-if="window.low > 45">
              <b>{{ durationText(window.low) }}</b> to pour, perhaps {{ durationText(window.high) }}
            </template>
            <template v-else>Hardly any time to pour</template>
          </p>
        </div>
        <SettingTimeline :outcome="outcome" :soak-s="plan.soakS" :stir-s="plan.stirS" />
        <details>
          <summary>How sure is this?</summary>
          <p>
            Ranges hold four times in five for a bag not yet tried here: the class default is good to about
            ±30 %. The forecast is for the temperature of the mix and leaves out its own heat, so a thick
            piece sets somewhat sooner than this says.
            <template v-if="outcome.demould.heldByFloor">
              This kind of mould keeps it longer than the plaster needs (common practice).
            </template>
          </p>
        </details>
      </section>
      <section class="becomes" aria-label="What it becomes">
        <div class="slab ground-dry">
          <span class="figure">{{ units.mass(outcome.dryMassG) }}</span>
          <span class="what">Dry weight</span>
          <span>{{ units.mass(outcome.wetMassG) }} when it comes out</span>
        </div>
        <div class="slab ground-dry">
          <span class="figure">{{ outcome.strength.dry.mid.toFixed(0) }} MPa</span>
          <span class="what">Strength, dry</span>
          <span>
            {{ outcome.strength.dry.low.toFixed(0) }}–{{ outcome.strength.dry.high.toFixed(0) }};
            {{ outcome.strength.wetOneHour.mid.toFixed(0) }} an hour after setting
          </span>
        </div>
        <div class="slab ground-dry">
          <span class="figure">{{ durationText(outcome.dryS.mid) }}</span>
          <span class="what">Dry enough to {{ DRY_TARGET_WORDS[plan.dryTarget] }}</span>
          <span>{{ durationRangeText(outcome.dryS.low, outcome.dryS.high) }}, in the air you gave</span>
        </div>
      </section>
      <CautionNote v-for="caution in cautionsOfPlan(plan)" :id="caution" :key="caution" />
    </template>
  </div>
</template>

<style scoped>
.result {
  display: grid;
  gap: var(--s3);
  align-content: start;
  min-width: 0;
}
.stale > section {
  opacity: 0.55;
}
.warn {
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
.warn.error {
  background: var(--hot-light);
  border-color: var(--hot);
}
.amounts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3) var(--s6);
}
.amounts > div {
  display: grid;
}
.what {
  font-weight: 600;
}
.card .what,
.card .other {
  color: var(--on-ground-soft);
}
.amount {
  font-size: clamp(2.6rem, 5.4vw, 4.1rem);
  white-space: nowrap;
}
.card {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s4);
  padding-block: var(--s4);
}
.out {
  display: grid;
  gap: var(--s3);
}
.short-of {
  border-left: 6px solid var(--warm-light);
  padding-left: var(--s3);
  font-weight: 600;
}
.makes {
  color: var(--on-ground-soft);
}
.makes b {
  white-space: nowrap;
  color: var(--on-ground);
}
@media (max-width: 43rem) {
  .card {
    flex-direction: column;
    align-items: flex-start;
  }
}
.heading {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s3);
  flex-wrap: wrap;
}
.becomes {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(11rem, 1fr));
}
.becomes > div {
  display: grid;
  gap: var(--s1);
  align-content: start;
  padding: var(--s4);
}
.becomes .figure {
  font-size: 1.9rem;
}
details {
  margin-top: var(--s2);
  color: var(--ink-soft);
}
summary {
  cursor: pointer;
  font-weight: 600;
}
</style>
