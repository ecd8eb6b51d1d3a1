<script setup lang="ts">
/** Where the workshop has not been kept safe for days: said at the bench, for whoever keeps it. Usage: <BackupOverdue /> */
import { onMounted, ref } from 'vue'
import type { BackupsAnswer } from '~~/shared/backups'
import { callApi } from '~/stores/api'

const overdue = ref(false)
onMounted(async () => {
  const answer = await callApi<BackupsAnswer>('/api/backups')
  overdue.value = answer.ok && answer.value.overdue
})
</script>

<template>
  <p v-if="overdue" class="overdue" role="status">
    <b>No good backup for more than two days.</b> <NuxtLink to="/settings#s-safe">See why</NuxtLink>
  </p>
</template>

<style scoped>
.overdue {
  margin-top: var(--s3);
  padding: var(--s2) var(--s3);
  border-left: 6px solid var(--hot);
}
</style>
