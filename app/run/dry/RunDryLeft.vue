<script setup lang="ts">
/** How far a drying piece still is from its use, what it should weigh, and a weighing that does not fit. Usage: <RunDryLeft :facts :now-ms @take-back /> */
import { computed } from 'vue'
import type { PourOutlook } from '#core/pour'
import { dryingLeft } from '~/parts/pour/dryingLeft'
import { counted } from '~/parts/show/counted'
import { percent } from '~/parts/show/figures'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { whichPieces } from '~/parts/words/pieces'
import { DRY_TARGET_WORDS } from '~/parts/words/pour'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const emit = defineEmits<{ takeBack: [eventId: string] }>()
const units = useUnits()

/** The last that does not fit: one question at a time. */
const doubtful = computed(() => props.facts.drying!.weighings.filter((w) => w.doubtful).slice(-1))
const weighedAt = (timeS: number) => momentText(props.facts.drying!.startMs + timeS * 1000, props.nowMs)
/** When the next weighing tells most, where that is still ahead; the clock says when it is due. */
const weighLater = computed(() => {
  const { weighNext, weighings, startMs } = props.facts.drying!
  return weighNext && weighings.length > 0 && startMs + weighNext.atS * 1000 > props.nowMs
    ? weighNext.atS
    : undefined
})
/** Of several casts, which ones that is of. */
const ofPieces = computed(() => {
  const which = whichPieces(props.facts.drying!.forecast.pieces, props.facts.pieces.length)
  return which && `, ${which}`
})
const left = computed(() => dryingLeft(props.facts.drying!, props.facts, props.nowMs))
</script>

<template>
  <div class="left">
    <p class="figure head">
      {{
        left.dry
          ? `Dry enough by now to ${DRY_TARGET_WORDS[facts.plan.dryTarget]}`
          : `${left.text} to go, to ${DRY_TARGET_WORDS[facts.plan.dryTarget]}`
      }}
    </p>
    <p class="later" data-testid="dry-strength">
      About <b>{{ percent(left.strength) }}</b> as strong as it will be dry.
    </p>
    <p class="later">
      Expected today: {{ units.mass(left.expectedG) }}{{ ofPieces }}.
      {{
        left.weighingsUsed >= 2
          ? `Learnt from ${counted(left.weighingsUsed, 'weighing')}.`
          : 'A model’s guess until there are two weighings.'
      }}
      <template v-if="weighLater !== undefined">
        Weighing it {{ weighedAt(weighLater) }} tells most.
      </template>
    </p>
    <p v-for="w in doubtful" :key="w.eventId" class="doubt" role="status">
      {{ units.mass(w.massG) }}, {{ weighedAt(w.timeS) }}: does that fit? It is far from what the others and
      the mix say, so the forecast hardly counts it.
      <button type="button" class="ghost" @click="emit('takeBack', w.eventId)">Take it back</button>
    </p>
  </div>
</template>

<style scoped>
.left {
  display: grid;
  gap: var(--s2);
}
.head {
  font-size: 1.35rem;
  line-height: 1.1;
}
@media (max-width: 43rem) {
  .left {
    display: contents;
  }
}
.doubt {
  display: grid;
  justify-items: start;
  gap: var(--s2);
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
</style>
