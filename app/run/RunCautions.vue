<script setup lang="ts">
/**
 * What can hurt at this step. One that stood at an earlier step of this pour, on this device, is one line that opens.
 * Usage: <RunCautions :run />
 */
import { ref, watch } from 'vue'
import { useReadCautions } from '~/parts/show/useReadCautions'
import type { CautionId } from '~/parts/show/cautions'
import type { StandingRun } from './useRun'

const props = defineProps<{ run: StandingRun }>()
const { isRead, markRead } = useReadCautions()
/** As it was when the step began: what is being read does not fold away. */
const folded = ref(new Set<CautionId>())
watch(
  () => props.run.cautions.join(),
  (_now, before) => {
    if (before) markRead(props.run.id, before.split(',') as CautionId[])
    folded.value = new Set(props.run.cautions.filter((id) => isRead(props.run.id, id)))
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="run.cautions.length > 0" class="cautions">
    <CautionNote v-for="id in run.cautions" :id :key="id" :folded="folded.has(id)" />
  </div>
</template>

<style scoped>
.cautions {
  display: grid;
  gap: var(--s2);
}
</style>
