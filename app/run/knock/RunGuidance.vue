<script setup lang="ts">
/**
 * What this mould and this bowl ask for at this step, line by line, and where the rest goes.
 * Usage: <RunGuidance :facts :step :now-ms />
 */
import { computed } from 'vue'
import { inScoops } from '#core/mix'
import { keyingOf } from '#core/mould'
import {
  FIRST_SCOOP,
  classValuesOf,
  layerBelow,
  leftoverNow,
  stageOf,
  type PourOutlook,
  type StepId,
} from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { STIR_SIGNS } from '~/parts/words/mix'
import { KEYING_WORDS } from '~/parts/words/mould'
import { scoopsText } from '~/parts/mix/scoop'
import { ingredientsOf } from '~/parts/mix/weighOut'
import { PACKING_WORDS } from '~/parts/words/plaster'

const props = defineProps<{ facts: PourOutlook; step: StepId | undefined; nowMs: number }>()
const units = useUnits()

/** What goes into this bowl besides, where it is more than one thing or has a name. */
const parts = computed(() => {
  const into = props.step === 'weigh_filler' ? 'powder' : props.step === 'weigh_admix' ? 'water' : undefined
  if (!into) return []
  return ingredientsOf(props.facts.plan, props.facts.inHand.planned).filter(
    (i) => i.into === into && i.id !== 'water' && i.id !== 'powder',
  )
})
/** Where the scale is gone, the same amounts by jug and scoop. */
const byVolume = computed(() => {
  const { plan, scaleFailed, inHand } = props.facts
  if (!scaleFailed) return ''
  if (props.step === 'weigh_water') return `${units.volume(inHand.planned.waterG)} of water, by the jug.`
  if (props.step !== 'weigh_powder') return ''
  const scoop = plan.scoop ?? FIRST_SCOOP
  const { text } = scoopsText(inScoops(inHand.planned.powderG, classValuesOf(plan).bulkKgM3, scoop.measureMl))
  return `${text} of ${units.volume(scoop.measureMl)}, ${PACKING_WORDS[scoop.packing].toLowerCase()}, levelled.`
})
const kneaded = computed(() => props.facts.plan.addingWay === 'kneaded')
/** The bag of powder is shut in the idle minutes, with the mask still on; in a bag of one's own, before the water goes in. */
const closeBag = computed(
  () => props.step === (kneaded.value ? 'start_sift' : 'soak') && props.facts.batch === 0,
)
const stirring = computed(() => {
  // In a shut bag nothing of that is seen.
  if (props.step !== 'stir' || kneaded.value) return []
  const { plan } = props.facts
  const purposes = [...new Set((plan.mould.members ?? []).map((m) => m.purpose))]
  return purposes.map((p) => STIR_SIGNS[p])
})
const waitsForLayer = computed(
  () =>
    props.step === 'start_sift' &&
    props.facts.inHand.planned.start === 'when_it_thickens' &&
    props.facts.batch > 0,
)
const freshBowl = computed(
  () => props.step === 'start_sift' && props.facts.batch > 0 && props.facts.plan.addingWay !== 'kneaded',
)
const keying = computed(() =>
  props.facts.inHand.topUp && (props.step === 'pour' || props.step === 'start_sift')
    ? keyingOf(layerBelow(props.facts, props.nowMs)).map((k) => KEYING_WORDS[k])
    : [],
)

const leftover = computed(() => {
  const { next, batch, batches } = props.facts
  // Only the last bowl leaves anything over.
  if (!next || stageOf(next) !== 'pour' || batch < batches.length - 1) return []
  return leftoverNow(props.facts, props.nowMs).fills
})
/** Too heavy for the scale at once. */
const turns = computed(() => {
  const { weighings } = props.facts.inHand.planned
  const n =
    props.step === 'weigh_water' ? weighings.water : props.step === 'weigh_powder' ? weighings.powder : 1
  return n > 1 ? [`More than the scale takes: in ${n} goes.`] : []
})
/** All that is to be said at this step, one line each. */
const lines = computed(() => [
  ...turns.value,
  ...parts.value.map((p) => `${units.mass(p.massG)} of ${p.what.toLowerCase()}`),
  ...(closeBag.value ? ['Close the bag of plaster now. The mask stays on until it is shut.'] : []),
  ...stirring.value,
  ...(waitsForLayer.value ? ['Roughen the layer in the mould, then mix this one as that thickens.'] : []),
  ...(freshBowl.value ? ['Into a fresh, clean bowl: crumbs of the last one make it set sooner.'] : []),
  ...keying.value,
])
</script>

<template>
  <p v-if="byVolume" class="volume">{{ byVolume }}</p>
  <ul v-if="lines.length > 0 || leftover.length > 0" class="lines">
    <li v-for="line in lines" :key="line">{{ line }}</li>
    <li v-if="leftover.length > 0">
      What is left fills
      <template v-for="(fill, i) in leftover" :key="fill.mouldId"
        ><template v-if="i > 0">, then </template><b>{{ fill.name }}</b> ({{
          units.roughVolume(fill.fillMl)
        }})</template
      >.
    </li>
  </ul>
</template>

<style scoped>
.volume {
  font-size: 1.4rem;
  font-weight: 700;
}
.lines {
  margin: 0;
  padding-left: 1.2rem;
  font-size: 1.08rem;
}
</style>
