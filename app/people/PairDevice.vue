<script setup lang="ts">
/** Where a device arrives that has read the desk's code: it is let in, and goes to the bench. Usage: <PairDevice /> */
import { onMounted, ref } from 'vue'
import { failureWords } from '~/parts/words/errors'
import { welcome } from '~/stores/me'
import { pairWith } from '~/stores/people'

const failure = ref('')
const token = location.hash.slice(1)
const PHONE_PX = 600
const TABLET_PX = 1100
/** What it is, as a workshop would call it. */
function deviceWords(): string {
  if (!matchMedia('(pointer: coarse)').matches) return 'Computer'
  const shorterPx = Math.min(screen.width, screen.height)
  return shorterPx < PHONE_PX ? 'Phone' : shorterPx < TABLET_PX ? 'Tablet' : 'Screen'
}

onMounted(async () => {
  if (!token) return
  const answer = await pairWith(token, deviceWords())
  if (!answer.ok) {
    failure.value = failureWords(answer.failure)
    return
  }
  welcome(answer.value)
  const isLooker = answer.value.at === 'network' && answer.value.role === 'looker'
  // Loaded anew: this window stands in the workshop from its first moment. The code is not kept behind it.
  location.replace(isLooker ? '/wall' : '/')
})
</script>

<template>
  <div class="page still">
    <RingSign :rings="[0, 0, 0, 0, 0, 0, 0, 0, 0]" :size="140" label="Not let in yet" />
    <template v-if="failure">
      <h1>Not let in</h1>
      <p role="alert">{{ failure }}</p>
    </template>
    <template v-else-if="token">
      <h1>Letting this device in…</h1>
      <p class="soft" role="status">A moment.</p>
    </template>
    <HowToBeLetIn v-else />
  </div>
</template>
