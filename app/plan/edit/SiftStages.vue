<script setup lang="ts">
/** Sifting to a look, each drawn in its bowl. Usage: <SiftStages v-model="draft" :class-id :water-ml /> */
import { SIFT_STAGE_WORDS } from '~/parts/words/mix'
import { figure } from '~/parts/show/figures'
import { computed } from 'vue'
import { SIFT_STAGES, consistencyBySifting, siftingLook, type SiftStage } from '#core/mix'
import type { PlasterClassId } from '#core/plaster'
import { useUnits } from '~/parts/show/useUnits'
import type { PlanDraft } from '../draft/planDraft'

const props = defineProps<{ classId: PlasterClassId; waterMl: number | undefined }>()
const draft = defineModel<PlanDraft>({ required: true })
const units = useUnits()

const stages = computed(() =>
  SIFT_STAGES.map((stage) => {
    const gives = consistencyBySifting(props.classId, stage)
    return {
      value: stage,
      label: SIFT_STAGE_WORDS[stage].name,
      gives,
      look: siftingLook({ classId: props.classId, waterG: gives.mid, powderG: 100 }, 1),
    }
  }),
)
function choose(stage: SiftStage) {
  draft.value.siftStage = stage
  draft.value.consistency = Math.round(consistencyBySifting(props.classId, stage).mid)
}
const off = computed(() => {
  const gives = consistencyBySifting(props.classId, draft.value.siftStage).mid
  return { gives, far: Math.abs(gives / draft.value.consistency - 1) > 0.03 }
})
</script>

<template>
  <div class="stages" role="radiogroup" aria-label="Sift until it looks like">
    <button
      v-for="s in stages"
      :key="s.value"
      type="button"
      role="radio"
      :aria-checked="draft.siftStage === s.value"
      @click="choose(s.value)"
    >
      <MixLook :look="s.look" />
      <b>{{ s.label }}</b>
      <span>{{ figure(s.gives.mid) }}</span>
      <small>{{ figure(s.gives.low) }}–{{ figure(s.gives.high) }}</small>
    </button>
  </div>
  <p class="small">
    <template v-if="waterMl">Start from <b>{{ units.volume(waterMl) }}</b> of water. </template
    >{{ SIFT_STAGE_WORDS[draft.siftStage].how }}
    <template v-if="off.far">
      That gives about {{ figure(off.gives) }}, not the {{ figure(draft.consistency) }} planned: choose the
      look again, or weigh.
    </template>
  </p>
</template>

<style scoped>
.stages {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: var(--s2);
}
.stages button {
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: var(--s2);
  border: 2px solid var(--line);
  border-radius: 0.9rem;
  background: transparent;
  color: inherit;
  font: inherit;
  line-height: 1.2;
  cursor: pointer;
}
.stages button[aria-checked='true'] {
  border-color: var(--wet);
  background: var(--wet-light);
}
</style>
