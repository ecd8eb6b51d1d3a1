<script setup lang="ts">
import { computed, onWatcherCleanup, watch } from 'vue'
import { STAGES } from '#core/pour'
import { useShell } from '~/stores/shell'
import { groundOf } from '~/parts/show/ground'
import { standingOf, useRun } from './useRun'
import { useAttention } from './useAttention'
import { useStale } from './weigh/useStale'

const { id } = defineProps<{ id: string }>()
const run = useRun(id)
useAttention(run)
const { stale, keep, drop } = useStale(run)
/** The run of a pour that is there and can be read. */
const standing = computed(() => standingOf(run))
/** Until it dries, hands and clocks are in it: no newer application comes in between. */
const isRunning = computed(() => {
  const stage = standing.value?.view.stage
  return stage !== undefined && run.mode !== 'ended' && STAGES.indexOf(stage) < STAGES.indexOf('dry')
})
const shell = useShell()
watch(isRunning, (now) => now && onWatcherCleanup(shell.keepRunning()), { immediate: true })
</script>

<template>
  <div v-if="standing" class="run" :class="groundOf(standing.view.stage)">
    <RecordedTwice :facts="standing.facts" :pour-id="id" />
    <RunStale v-if="stale" :run="standing" :stale="stale" @keep="keep" @drop="drop" />
    <RunKnocking v-else-if="run.mode === 'knock'" :run="standing" />
    <RunSetting v-else-if="run.mode === 'wait' || run.mode === 'demould'" :run="standing" />
    <RunDrying v-else-if="run.mode === 'dry'" :run="standing" />
    <RunEnded v-else :run="standing" />
    <p class="visually-hidden" role="status">{{ run.said }}</p>
  </div>
  <div v-else class="page missing">
    <h1>{{ run.unreadable ? 'This pour cannot be read' : run.failure || 'Fetching the pour…' }}</h1>
    <NuxtLink v-if="run.unreadable" :to="`/casts/${id}`">See it as it lies there</NuxtLink>
    <NuxtLink v-else-if="run.failure" to="/">Back to the bench</NuxtLink>
  </div>
</template>

<style scoped>
.run {
  flex: 1;
  display: flex;
  flex-direction: column;
}
.missing {
  display: grid;
  gap: var(--s4);
}
</style>
