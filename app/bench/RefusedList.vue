<script setup lang="ts">
import { Download } from '@lucide/vue'
import Button from 'primevue/button'
import { computed } from 'vue'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useCommands } from '~/stores/commands'
import { useOutbox } from '~/stores/outbox'
import { saveFile } from '~/parts/show/saveFile'

const outbox = useOutbox()
const commands = useCommands()
const isEmpty = computed(() => outbox.refused.length + commands.refused.length === 0)
const isOnItsWay = computed(() => outbox.unsent.length + commands.waiting.length > 0)
const now = useNowBy(MS_PER.min)
function exportAll() {
  saveFile(
    'not-recorded.json',
    'application/json',
    `${JSON.stringify([...commands.refused, ...outbox.refused], null, 2)}\n`,
  )
}
</script>

<template>
  <div class="page">
    <h1>Not recorded</h1>
    <p v-if="isEmpty" class="soft">
      {{ isOnItsWay ? 'On its way…' : 'Everything you recorded on this device has been taken.' }}
      <NuxtLink to="/">Back to the bench</NuxtLink>
    </p>
    <template v-else>
      <p>
        The workshop would not take these as they are. They are kept on this device until you have put them
        right or thrown them away.
      </p>
      <RefusedCommand v-for="row in commands.refused" :key="row.id" :row="row" :now-ms="now" />
      <RefusedEvent v-for="row in outbox.refused" :key="row.event.id" :row="row" :now-ms="now" />
      <p>
        <Button severity="secondary" @click="exportAll">
          <Download :size="18" aria-hidden="true" /> All of them as a file
        </Button>
      </p>
    </template>
  </div>
</template>
