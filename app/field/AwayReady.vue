<script setup lang="ts">
/** What this device keeps for a day away, and one button that fetches what is missing. Usage: <AwayReady /> */
import { Check, Download } from '@lucide/vue'
import Button from 'primevue/button'
import { useIntervalFn } from '@vueuse/core'
import { computed } from 'vue'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useConnection } from '~/stores/connection'
import { useAway } from '~/stores/away'
import { useDeviceCopy } from '~/stores/deviceCopy'
import { keepsNothing } from '~/stores/kept'
import { lookAtRoom, room } from '~/stores/room'
import { useShell } from '~/stores/shell'
import { useWorkshop } from '~/stores/workshop'
import { figure } from '~/parts/show/figures'
import { momentText } from '~/parts/show/time'
import { READY_WORDS } from '~/parts/field/words'

const copy = useDeviceCopy()
const away = useAway()
const shell = useShell()
const connection = useConnection()
const workshop = useWorkshop()
const now = useNowBy(MS_PER.min)
void lookAtRoom()
void workshop.ready.then(away.check)
// What is fetched or changes meanwhile is written a moment later.
useIntervalFn(() => void away.check(), 3000)

const isWhole = computed(() => away.ready.length > 0 && away.ready.every((r) => r.here >= r.of))
async function fetchAll() {
  await away.fetchAll()
  await lookAtRoom()
}
const bytesText = (bytes: number) =>
  bytes >= 1e9 ? `${figure(bytes / 1e9)} GB` : `${figure(bytes / 1e6)} MB`
/** What a day's photographs take, about. */
const DAY_BYTES = 60e6
const isTight = computed(
  () => room.value !== undefined && room.value.ofBytes - room.value.usedBytes < DAY_BYTES,
)
async function install() {
  await shell.install?.prompt()
  shell.install = undefined
}
</script>

<template>
  <section class="slab away" aria-labelledby="away-title">
    <h2 id="away-title">For a day away</h2>
    <ul>
      <li>
        <Check v-if="shell.isKept" :size="22" class="yes" aria-hidden="true" />
        <b>{{ shell.isKept ? 'Opens without a network' : 'Does not open without a network yet' }}</b>
        <p v-if="!shell.isKept" class="soft small">
          The browser keeps the application where pages come by https, or at the machine itself, and where it
          is allowed to keep anything. Leave the page open and it works as well.
        </p>
      </li>
      <li v-for="r in away.ready" :key="r.what">
        <Check v-if="r.here >= r.of" :size="22" class="yes" aria-hidden="true" />
        <b>{{ READY_WORDS[r.what] }}</b> {{ r.here }} of {{ r.of }}
      </li>
    </ul>
    <p v-if="copy.fetched.atMs > 0" class="soft">
      Fetched {{ momentText(copy.fetched.atMs, now)
      }}<template v-if="copy.fetched.missing > 0">; {{ copy.fetched.missing }} pictures did not come</template
      >.
    </p>
    <p v-if="keepsNothing" class="failure">This browser is told to keep nothing: take another along.</p>
    <p v-else-if="isTight" class="failure">
      {{ bytesText(room!.ofBytes - room!.usedBytes) }} are left here: a day’s photographs may not fit. Make
      room on the device.
    </p>
    <p v-else-if="room" class="soft">
      {{ bytesText(room.usedBytes) }} kept of {{ bytesText(room.ofBytes) }}.
      {{ room.stays ? '' : 'The browser may clear it when others want room.' }}
    </p>
    <div class="button-row">
      <Button :disabled="away.fetching || !connection.connected" @click="fetchAll">
        <Download :size="20" aria-hidden="true" />
        {{ away.fetching ? 'Fetching…' : isWhole ? 'Fetch it anew' : 'Fetch everything' }}
      </Button>
      <Button v-if="shell.install" severity="secondary" label="Put it on this device" @click="install" />
    </div>
  </section>
</template>

<style scoped>
.away {
  display: grid;
  gap: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s1);
}
.yes {
  margin-right: var(--s2);
  color: var(--wet);
  vertical-align: -0.25em;
}
</style>
