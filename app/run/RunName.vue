<script setup lang="ts">
/** Which pour it is, how far it is, what was done last and by whom. Usage: <RunName :id :facts :view :knocking :plan-open /> */
import { computed } from 'vue'
import { STAGES, type PourOutlook, type PourView } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { eventWords } from '~/parts/words/events'
import { STAGE_WORDS } from '~/parts/words/pour'
import { mixesInBags } from './knock/advance'

const props = defineProps<{
  id: string
  facts: PourOutlook
  view: PourView
  /** Whether it goes on by a knock. */
  knocking: boolean
  planOpen: boolean
}>()
const units = useUnits()

const nth = computed(() => STAGES.indexOf(props.view.stage) + 1)
/** Several may stand at one bench. */
const lastDone = computed(() => props.facts.live.at(-1))
</script>

<template>
  <div class="name">
    <RingSign
      class="sign"
      :rings="view.rings"
      :size="230"
      :label="`${STAGE_WORDS[view.stage]}, stage ${nth} of 9`"
      :failed="view.status === 'failed'"
    />
    <div class="who">
      <p class="piece">{{ facts.plan.piece }}</p>
      <p class="stage">{{ STAGE_WORDS[view.stage] }} · {{ nth }} of 9</p>
      <p v-if="lastDone" class="stage last" data-testid="last-done">
        {{ eventWords(lastDone.body, units) }}<b v-if="lastDone.who"> · {{ lastDone.who }}</b>
      </p>
      <NuxtLink :to="`/casts/${id}`">Its record</NuxtLink>
      <NuxtLink v-if="planOpen || knocking" :to="`/pour/${id}/card`">Weigh-out card</NuxtLink>
      <NuxtLink v-if="knocking && mixesInBags(facts.plan)" :to="`/pour/${id}/labels`">Labels</NuxtLink>
      <NuxtLink v-if="planOpen" :to="{ path: '/plan', query: { pour: id } }">Change the plan</NuxtLink>
    </div>
  </div>
</template>

<style scoped>
.name {
  display: grid;
  gap: var(--s3);
}
.sign {
  max-width: min(100%, 7rem);
  height: auto;
}
.who {
  display: grid;
  gap: var(--s1);
}
.who a {
  display: inline-flex;
  align-items: center;
  min-height: 1.9rem;
}
.piece {
  font-weight: 700;
  font-size: 1.25rem;
  line-height: 1.15;
}
.stage {
  color: var(--on-ground-soft);
}
@media (max-width: 43rem) {
  .name {
    grid-template-columns: 52px 1fr;
    width: auto;
    align-items: center;
  }
  .who {
    grid-template-columns: 1fr auto;
  }
  .piece {
    grid-column: 1 / -1;
  }
  .last {
    grid-column: 1 / -1;
    font-size: 0.9rem;
  }
}
</style>
