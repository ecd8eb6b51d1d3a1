<script setup lang="ts">
/** A run that is over: how it ended, and the way to its record. Usage: <RunEnded :run /> */
import { verdictText } from '~/parts/words/pieces'
import { useKnock } from './knock/useKnock'
import type { StandingRun } from './useRun'

const props = defineProps<{ run: StandingRun }>()

useKnock(() => {}, props.run.undo)
</script>

<template>
  <RunFrame :run>
    <h1>{{ run.facts.verdict ? verdictText(run.facts.pieces) : 'Finished' }}</h1>
    <p class="how">{{ run.facts.verdict?.reason }}</p>
    <template #dock>
      <RunTools :run />
      <section class="pool">
        <NuxtLink :to="`/casts/${run.id}`" class="figure">See its record</NuxtLink>
      </section>
    </template>
  </RunFrame>
</template>

<style scoped>
a {
  display: grid;
  place-content: center;
  min-height: 6rem;
  color: inherit;
  text-decoration: none;
  font-size: clamp(2rem, 6vw, 4rem);
}
</style>
