<script setup lang="ts">
/**
 * A job cut into bowls: by which rule, which bowl would take it at once, what it costs to pass over the rule, and what two
 * bowls do in one mould. Usage: <PlanBowlNote :plan :outcome @bowl="(id) => …" @rim="(to) => …" />
 */
import { computed } from 'vue'
import { mostForBowlMl } from '#core/mix'
import { seamOf, type PlanOutcome, type PourPlan } from '#core/pour'
import { durationText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{ plan: PourPlan; outcome: PlanOutcome }>()
const emit = defineEmits<{ bowl: [bowlId: string]; rim: [to: boolean] }>()
const workshop = useWorkshop()
const units = useUnits()

const split = computed(() => props.plan.batching?.split)
const bowl = computed(() => props.plan.batching?.bowl ?? undefined)
const toTheRim = computed(() => split.value?.by === 'need' && split.value.toTheRim === true)
const isCut = computed(() => props.outcome.batching.because === 'bowl')
/** What takes all of it by the rule, ml. */
const atOnceMl = computed(() => props.outcome.batching.total.bowlMl)
const larger = computed(() =>
  [...workshop.bowls]
    .sort((a, b) => a.volumeMl - b.volumeMl)
    .find((b) => b.volumeMl >= atOnceMl.value && b.id !== bowl.value?.bowlId),
)
const holdsIt = computed(
  () =>
    split.value?.by === 'need' &&
    bowl.value !== undefined &&
    props.outcome.batching.total.slurryMl <= mostForBowlMl(bowl.value.volumeMl),
)
const seam = computed(() => seamOf(props.plan, props.outcome))
</script>

<template>
  <div v-if="(isCut && bowl) || toTheRim || seam" class="note" data-testid="bowl-note">
    <template v-if="toTheRim">
      <p>To the rim of {{ bowl?.name ?? 'the bowl' }}: it may run over while it is sifted and stirred.</p>
      <span class="outline-buttons">
        <button type="button" class="outline-button" @click="emit('rim', false)">
          By the rule after all
        </button>
      </span>
    </template>
    <template v-else-if="isCut && bowl">
      <p>
        {{ bowl.name }} holds {{ units.volume(bowl.volumeMl) }}; water may be a third of that, or it runs
        over.
        <template v-if="!larger">One of {{ units.volume(atOnceMl) }} would take it at once.</template>
      </p>
      <span v-if="larger || holdsIt" class="outline-buttons">
        <button v-if="larger" type="button" class="outline-button" @click="emit('bowl', larger.id)">
          {{ larger.name }} takes it at once
        </button>
        <button v-if="holdsIt" type="button" class="outline-button" @click="emit('rim', true)">
          All in one all the same
        </button>
      </span>
    </template>
    <p v-if="seam" class="seam">
      Into one mould:
      <template v-if="seam.runs">begin each bowl as the last goes in, and they run together.</template>
      <template v-else
        >the next is ready {{ durationText(seam.gapS) }} after the last, which runs for
        {{ durationText(seam.runsS) }}. A weak seam: two mixing at once, a larger bowl or a retarder avoid
        it.</template
      >
    </p>
  </div>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s3);
  padding: var(--s1) var(--s3);
  border-left: 6px solid var(--wet);
  border-radius: 0.5rem;
  background: var(--plaster);
  line-height: 1.3;
}
p {
  flex: 1 1 18rem;
}
.seam {
  flex-basis: 100%;
}
</style>
