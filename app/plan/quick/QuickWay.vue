<script setup lang="ts">
/** The way to the pour, drawn for this very mix, and why it goes so. Usage: <QuickWay :plan :outcome /> */
import { computed } from 'vue'
import { settingLook, siftingLook, soakingLook, stirringLook, type BowlLook, type MixedBowl } from '#core/mix'
import type { PlanOutcome, PourPlan } from '#core/pour'
import { pourTimeText } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { SIFT_STAGE_WORDS } from '~/parts/words/mix'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const units = useUnits()

const bowl = computed<MixedBowl>(() => ({
  classId: props.plan.plaster.properties.classId,
  waterG: props.outcome.weighOut.waterG,
  powderG: props.outcome.weighOut.powderG,
}))
interface Part {
  look: BowlLook
  what: string
  why: string
}
const powder = computed<Part>(() => {
  const { addingWay = 'sifted', ratioMethod, siftStage = 'lake_bed' } = props.plan
  const look = siftingLook(bowl.value, 1)
  if (addingWay !== 'sifted')
    return { look, what: 'All the powder at once', why: 'So that plaster and silica wet together.' }
  return ratioMethod === 'by_eye'
    ? {
        look,
        what: `Sift to ${SIFT_STAGE_WORDS[siftStage].name.toLowerCase()}`,
        why: SIFT_STAGE_WORDS[siftStage].how,
      }
    : { look, what: 'Sift the powder in', why: 'Evenly, without stirring: each grain sinks and wets alone.' }
})
const parts = computed<Part[]>(() => {
  const { plan, outcome } = props
  const { work_end: work, initial_set: initial } = outcome.setting.timeS
  const soaks = plan.soakS > 0
  const stirred = work.mid - (outcome.pourWindowS?.mid ?? 0)
  return [
    {
      look: siftingLook(bowl.value, 0),
      what: `Water first: ${units.volume(outcome.weighOut.waterG)}`,
      why: 'Powder sinks into water by itself. Water poured on powder leaves dry lumps.',
    },
    powder.value,
    ...(soaks
      ? [
          {
            look: soakingLook(bowl.value, 0.6),
            what: `Wait ${durationText(plan.soakS)}`,
            why: 'Let it drink until no dry white is left: what is stirred dry stays a lump, with air in it.',
          },
        ]
      : []),
    {
      look: stirringLook(0.45),
      what: `Stir ${durationText(plan.stirS)}`,
      why: 'Under the surface, until no lump is felt. Longer sets sooner, and weaker.',
    },
    {
      look: settingLook(bowl.value, stirred, { stirred, workEnd: work.mid, initialSet: initial.mid }),
      what: outcome.pourWindowS ? `Pour within ${pourTimeText(outcome.pourWindowS)}` : 'Pour at once',
      why: 'Low and slow, from the deepest point; then tap the bubbles up.',
    },
  ]
})
</script>

<template>
  <ol class="way" aria-label="The way to the pour, and why">
    <li v-for="part in parts" :key="part.what">
      <MixLook :look="part.look" />
      <div>
        <b>{{ part.what }}</b>
        <p>{{ part.why }}</p>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.way {
  width: 100%;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(17rem, 100%), 1fr));
  gap: var(--s2) var(--s4);
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 5.4rem minmax(0, 1fr);
  gap: var(--s3);
  align-items: center;
}
p {
  line-height: 1.25;
}
</style>
