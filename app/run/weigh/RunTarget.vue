<script setup lang="ts">
/**
 * What is to be weighed, large. With a scale under the bowl: what is still to go, and the bowl filling up.
 * Usage: <RunTarget :target-g="750" :scoops :phase :scale-name="scale.name" :gone="scale.isGone" />
 */
import { computed } from 'vue'
import { useUnits } from '~/parts/show/useUnits'
import { scoopsText, type InScoops } from '~/parts/mix/scoop'
import type { WeighPhase } from './weighStep'
import { weighWords } from '../words'

const props = defineProps<{
  targetG: number
  phase: WeighPhase | undefined
  /** The same by scoop, where the plan is met by scoop. */
  scoops: InScoops | undefined
  scaleName: string
  gone: boolean
}>()
const units = useUnits()
const weighing = computed(() => (props.phase && 'weighing' in props.phase ? props.phase.weighing : undefined))
/** Brim full is a little over what is wanted, so that too much can be seen. */
const MOST = 1.15
const level = computed(() => `${(100 * Math.min(weighing.value?.filled ?? 0, MOST)) / MOST}%`)
const mark = `${100 / MOST}%`
</script>

<template>
  <div class="target" :class="{ followed: phase }">
    <p class="figure mass">
      <template v-if="weighing">
        {{ units.mass(Math.abs(weighing.toGoG)) }}
        <span class="other"
          >{{ weighing.toGoG < 0 ? 'too much' : 'to go' }} of {{ units.mass(targetG) }}</span
        >
      </template>
      <template v-else-if="scoops">
        {{ scoopsText(scoops.count).text }} {{ scoops.count > 1 ? 'scoops' : 'scoop' }}
        <span class="other">of {{ units.volume(scoops.measureMl) }}: {{ units.mass(targetG) }}</span>
      </template>
      <template v-else>
        {{ units.mass(targetG) }}
        <span class="other">{{ units.massOther(targetG) }}</span>
      </template>
    </p>
    <p v-if="scoops?.coarse && !weighing">To a quarter of a scoop: a smaller one would come closer.</p>
    <div v-if="phase" class="gauge" :class="[phase.phase, weighing?.state]" data-testid="gauge">
      <div class="fill" :style="{ width: level }" />
      <div class="mark" :style="{ left: mark }" />
      <span>{{ weighWords(phase, scaleName) }}</span>
    </div>
    <p v-else-if="gone" class="gone" role="alert">{{ scaleName }} says nothing. Type what it shows.</p>
  </div>
</template>

<style scoped>
.target {
  display: grid;
  gap: var(--s3);
}
.mass {
  font-size: clamp(4rem, 11vw, 7.5rem);
}
.other {
  font-family: var(--text);
  font-size: 1.3rem;
  font-weight: 400;
  letter-spacing: 0;
  color: var(--on-ground-soft);
  white-space: nowrap;
}
/* The gauge below it belongs on the same screen. */
.followed .mass {
  font-size: clamp(3.4rem, 7.5vw, 5.6rem);
  line-height: 1;
}
.gauge {
  position: relative;
  height: 3.6rem;
  border: 2px solid currentColor;
  border-radius: 0.6rem 0.6rem 1.6rem 1.6rem;
  overflow: hidden;
  display: grid;
  place-content: center;
  font-weight: 700;
  font-size: 1.25rem;
}
.gauge span {
  position: relative;
  padding: 0.1rem 0.8rem;
  border-radius: 1rem;
  background: var(--ground);
}
.fill {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--pool-colour);
  transition: width 150ms linear;
}
.mark {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 4px dashed currentColor;
}
.over .fill,
.overload .fill {
  background: repeating-linear-gradient(45deg, var(--warm) 0 12px, var(--warm-light) 12px 24px);
}
.gone {
  font-weight: 700;
}
@media (max-width: 43rem) {
  .mass {
    font-size: 3.6rem;
  }
  .gauge {
    font-size: 1.1rem;
    line-height: 1.2;
  }
}
@media (prefers-reduced-motion: reduce) {
  .fill {
    transition: none;
  }
}
</style>
