<script setup lang="ts">
/** Scales, thermometers and buttons of the network: their keys, who is here, who was turned away. Usage: <NetworkDevices /> */
import { newId as makeId } from '~~/shared/newId'
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref, watch } from 'vue'
import type { DeviceKeyCard, RefusedWhy } from '~~/shared/devices'
import { counted } from '~/parts/show/counted'
import { failureWords } from '~/parts/words/errors'
import { useDeviceKeys } from '~/stores/deviceKeys'
import { useDevices } from '~/stores/devices'

const store = useDeviceKeys()
const devices = useDevices()
const isLoaded = ref(false)
const failure = ref('')
async function load() {
  const failed = await store.load()
  isLoaded.value = !failed
  failure.value = failed ? failureWords(failed) : ''
}
onMounted(load)
// One that nobody knew may have come by a key.
watch(
  () => [...devices.now].filter(([, now]) => now.here).map(([device]) => device),
  (here) => {
    const known = new Set(store.keys.map((k) => k.device))
    if (store.keys.some((k) => k.device === null) && here.some((device) => !known.has(device))) void load()
  },
)

const name = ref('')
const newId = ref(makeId())
/** Told once. */
const made = ref<{ name: string; key: string }>()
async function make() {
  const wanted = name.value.trim()
  if (wanted === '') return
  const answer = await store.make(newId.value, wanted)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  if (!answer.ok) return
  newId.value = makeId()
  name.value = ''
  made.value = { name: wanted, key: answer.value.key }
}

const asks = ref<string>()
async function end(key: DeviceKeyCard) {
  const answer = await store.end(key.id)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  asks.value = undefined
}

function stateOf({ device }: DeviceKeyCard): string {
  if (device === null) return 'no device has come by this key yet'
  return devices.now.get(device)?.here ? `${device}, here now` : `${device}, not here`
}
const droppedOf = ({ device }: DeviceKeyCard) =>
  device === null ? undefined : devices.now.get(device)?.dropped?.lines

const WHY: Record<RefusedWhy, string> = {
  no_key: 'it says no key',
  wrong_key: 'its key lets nobody in',
  other_device: 'its key is another device’s',
  in_use: 'another device is here under this name',
}
</script>

<template>
  <section class="slab" aria-labelledby="p-bench-devices">
    <h2 id="p-bench-devices">Scales and thermometers of the network</h2>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-if="isLoaded && store.address === null" class="soft">
      They are kept out. To let them in, each by a key of its own, start it with
      <code>./bin/start --share --devices</code>. What is plugged in at this machine needs none.
    </p>
    <template v-else-if="isLoaded">
      <p>They connect to <b>{{ store.address }}</b> and say their key in their first line.</p>
      <ul v-if="store.keys.length > 0">
        <li v-for="key in store.keys" :key="key.id">
          <span
            ><b>{{ key.name }}</b> <span class="soft">{{ stateOf(key) }}</span>
            <span v-if="droppedOf(key)" class="dropped"
              >It says more than is listened to: {{ counted(droppedOf(key)!, 'line') }} not heard.</span
            ></span
          >
          <span v-if="asks === key.id" class="asks">
            <span>It is let in no more.</span>
            <button type="button" class="ghost" @click="end(key)">Yes, take it back</button>
            <button type="button" class="ghost" @click="asks = undefined">No</button>
          </span>
          <button
            v-else
            type="button"
            class="icon-button"
            :aria-label="`Take the key of ${key.name} back`"
            @click="asks = key.id"
          >
            <X :size="20" aria-hidden="true" />
          </button>
        </li>
      </ul>
      <form novalidate @submit.prevent="make">
        <label class="field"
          ><span>A device more</span
          ><InputText v-model="name" maxlength="60" placeholder="what it is" autocomplete="off"
        /></label>
        <Button type="submit" severity="secondary" label="Make a key" :disabled="name.trim() === ''" />
      </form>
      <div v-if="made" class="made" role="status">
        <p>The key of {{ made.name }}, shown this once: put it into the device.</p>
        <code class="key">{{ made.key }}</code>
        <button type="button" class="ghost" @click="made = undefined">It is in</button>
      </div>
      <div v-if="devices.refused.length > 0" class="refused" role="status">
        <h3>Turned away just now</h3>
        <ul>
          <li v-for="r in devices.refused" :key="`${r.address} ${r.device}`">
            {{ r.name }} ({{ r.device }}) {{ r.address === '' ? 'at this machine' : `from ${r.address}` }}:
            {{ WHY[r.why] }}.
          </li>
        </ul>
      </div>
    </template>
  </section>
</template>

<style scoped>
section,
.made {
  display: grid;
  gap: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
  padding: var(--s2) 0;
  border-top: 1px solid var(--line);
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.dropped {
  display: block;
}
li > :first-child {
  flex: 1;
}
.made button {
  justify-self: start;
}
.key {
  font-size: 1.15rem;
  overflow-wrap: anywhere;
  user-select: all;
}
h3 {
  margin: 0 0 var(--s2);
  font-size: 1rem;
}
</style>
