<script setup lang="ts">
/** When the workshop was last kept safe, and the way to take it out. Usage: <BackupState /> */
import { onMounted, ref, shallowRef } from 'vue'
import type { BackupsAnswer } from '~~/shared/backups'
import { spanText, momentText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { useNowBy } from '~/stores/bench'
import { callApi } from '~/stores/api'
import { may } from '~/stores/me'
import { BACKUP_FAILURE_WORDS, bytesText } from './backupWords'

const lagWords = (lagMs: number) => (lagMs < 1000 ? 'less than a second' : spanText(lagMs))
const now = useNowBy(60_000)
const backups = shallowRef<BackupsAnswer>()
const failure = ref('')
onMounted(async () => {
  const answer = await callApi<BackupsAnswer>('/api/backups')
  if (answer.ok) backups.value = answer.value
  else failure.value = failureWords(answer.failure)
})
</script>

<template>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  <template v-if="backups">
    <p v-if="backups.lastGood" :class="{ hot: backups.overdue }">
      <b>The last good backup is {{ spanText(now - backups.lastGood.atMs) }} old</b>: written, read back into
      an empty database, and found the same. One is made each day by itself, and the last fourteen are kept.
    </p>
    <p v-else :class="{ hot: backups.overdue }">
      <b>No daily backup yet.</b> One is made by itself some minutes after the start, and then each day.
    </p>
    <p
      v-if="backups.lastFailure && backups.lastFailure.atMs > (backups.lastGood?.atMs ?? 0)"
      class="hot"
      role="alert"
    >
      {{ BACKUP_FAILURE_WORDS[backups.lastFailure.why] }} It is tried again each hour.
    </p>
    <p v-if="backups.replica" :class="{ hot: backups.replica.lagMs === null }">
      <template v-if="backups.replica.lagMs === null"
        ><b>The second copy cannot be reached.</b> The log is read from the first meanwhile.</template
      >
      <template v-else><b>A second copy follows</b>, {{ lagWords(backups.replica.lagMs) }} behind.</template>
    </p>
    <details v-if="backups.files.length > 0" class="fold">
      <summary>Those there are</summary>
      <ul>
        <li v-for="file in backups.files" :key="file.name">
          <span>{{ momentText(file.atMs, now) }} <span class="soft">{{ bytesText(file.bytes) }}</span></span>
          <a v-if="may('own')" :href="`/api/backups/${file.name}/file`" download>Take {{ file.name }} out</a>
          <span v-else class="soft">{{ file.name }}</span>
        </li>
      </ul>
    </details>
    <p class="soft">
      They lie on the disk of this machine: take one out now and then, to where a fire or a thief would not
      find both.
      <code>./bin/restore FILE</code> puts it into an empty state.
    </p>
  </template>
</template>

<style scoped>
.hot {
  padding-left: var(--s3);
  border-left: 6px solid var(--hot);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--s3);
  min-height: 44px;
}
</style>
