<script setup lang="ts">
/**
 * Far more or less water is in the bowl than planned: what now? It stands where the target is, and is answered before any
 * plaster is weighed. Usage: <RunFollow :run />
 */
import { computed } from 'vue'
import { followWays, type FollowWay } from '#core/pour'
import { figure } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import type { StandingRun } from '../useRun'

const props = defineProps<{ run: StandingRun }>()
const units = useUnits()

const asked = computed(() => followWays(props.run.facts))
const isShort = computed(() => asked.value.waterG < asked.value.plannedG)
const left = (leftMl: number) =>
  leftMl >= 0 ? `${units.roughVolume(leftMl)} over` : `${units.roughVolume(-leftMl)} short of the mould`

function words(found: FollowWay): { what: string; comes: string } {
  switch (found.way) {
    case 'water':
      return {
        what: `${found.how === 'water_in' ? 'Add' : 'Sponge out'} ${units.mass(found.massG)} of water`,
        comes: 'Then it is as planned.',
      }
    case 'follow':
      return {
        what: `Weigh ${units.mass(found.powderG)} of plaster to it`,
        comes: `The same mix, ${left(found.leftMl)}.`,
      }
    case 'as_planned':
      return {
        what: `Weigh ${units.mass(found.powderG)} of plaster, as planned`,
        comes: `${isShort.value ? 'Stiffer' : 'Thinner'}: ${figure(found.consistency)} of water to 100.`,
      }
  }
}
/** The ways there are, each with what it comes to. */
const ways = computed(() => asked.value.ways.map((found) => ({ ...words(found), body: found.body })))
</script>

<template>
  <section class="pool" aria-labelledby="follow-ask">
    <p id="follow-ask" class="ask">
      {{ units.mass(asked.waterG) }} of water is in, not {{ units.mass(asked.plannedG) }}. What now?
    </p>
    <div class="ways">
      <button v-for="way in ways" :key="way.what" type="button" @click="run.put(way.body)">
        <b>{{ way.what }}</b>
        <span>{{ way.comes }}</span>
      </button>
    </div>
  </section>
</template>

<style scoped>
.ask {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.3rem;
  line-height: 1.15;
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(14rem, 100%), 1fr));
  gap: var(--s2) var(--s3);
}
button {
  display: grid;
  align-content: center;
  min-height: 3.6rem;
  padding: var(--s2) var(--s4);
  border: 2px solid currentColor;
  border-radius: 1.4rem;
  background: transparent;
  color: inherit;
  text-align: left;
  line-height: 1.15;
  cursor: pointer;
}
</style>
