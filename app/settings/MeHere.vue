<script setup lang="ts">
/** On a device that was let in: who is on it, their password, workshops and devices, and the way off it. Usage: <MeHere :me /> */
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, onMounted, ref, shallowRef } from 'vue'
import type { Me, MyAccount } from '~~/shared/people'
import { counted } from '~/parts/show/counted'
import { failureWords } from '~/parts/words/errors'
import { ROLE_WORDS, mayWords } from '~/parts/words/roles'
import { enterPlace, loadAccount, putMyDeviceOut } from '~/stores/account'
import type { ApiResult } from '~/stores/api'
import { leaveDevice } from '~/stores/leave'
import { useOutbox } from '~/stores/outbox'
import { useCommands } from '~/stores/commands'
import { usePhotos } from '~/stores/photos'

const { me } = defineProps<{ me: Extract<Me, { at: 'network' }> }>()
const outbox = useOutbox()
const photos = usePhotos()
const account = shallowRef<MyAccount>()
const failure = ref('')

async function load() {
  const answer = await loadAccount()
  if (answer.ok) account.value = answer.value
}
onMounted(load)
const otherPlaces = computed(() => account.value?.places.filter((p) => p.workshopId !== me.workshopId) ?? [])
const otherDevices = computed(() => account.value?.devices.filter((d) => d.id !== me.sessionId) ?? [])
async function say(asked: Promise<ApiResult<unknown>>) {
  const answer = await asked
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  await load()
}

/** Only here as yet: it would be lost. */
const commands = useCommands()
const waiting = computed(
  () =>
    outbox.unsent.length +
    outbox.refused.length +
    commands.waiting.length +
    commands.refused.length +
    photos.waiting.size,
)
const asks = ref(false)
</script>

<template>
  <p>
    <b>{{ me.name }}</b>, {{ ROLE_WORDS[me.role].toLowerCase() }}, on this {{ me.device.toLowerCase() }}.
    {{ mayWords(me.role) }}
  </p>
  <div v-if="otherPlaces.length > 0" class="acts">
    <Button
      v-for="place in otherPlaces"
      :key="place.workshopId"
      type="button"
      severity="secondary"
      :label="`Go into ${place.name}`"
      @click="say(enterPlace(place.workshopId))"
    />
  </div>
  <ul v-if="otherDevices.length > 0">
    <li v-for="device in otherDevices" :key="device.id">
      You are on another {{ device.name.toLowerCase() }}, too
      <button
        type="button"
        class="icon-button"
        :aria-label="`Put my ${device.name} out`"
        @click="say(putMyDeviceOut(device.id))"
      >
        <X :size="20" aria-hidden="true" />
      </button>
    </li>
    <li v-if="otherDevices.length > 1">
      <button type="button" class="ghost" @click="say(putMyDeviceOut())">Put all of them out</button>
    </li>
  </ul>
  <MyPassword
    v-if="account"
    :key="account.signInName ?? ''"
    :name="account.signInName"
    :fallback="me.name"
    @kept="load"
  />
  <p v-if="asks">
    Nothing of yours can be read on this device then<template v-if="waiting > 0"
      >, and
      <b>{{ counted(waiting, 'thing') }} that you recorded here and the workshop does not have</b> would be
      lost</template
    >. To come back you need {{ account?.signInName ? 'your password or a code' : 'another code' }}.
  </p>
  <div class="acts">
    <Button v-if="!asks" type="button" severity="secondary" label="Leave this device" @click="asks = true" />
    <template v-else>
      <button type="button" class="ghost" @click="say(leaveDevice())">
        {{ waiting > 0 ? 'Leave, and lose them' : 'Yes, leave' }}
      </button>
      <button type="button" class="ghost" @click="asks = false">Stay</button>
    </template>
  </div>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
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
  min-height: 44px;
}
</style>
