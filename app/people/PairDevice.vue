<script setup lang="ts">
/** Where a device arrives that has read the desk's code: it is let in, and goes to the bench. Usage: <PairDevice /> */
import { computed, ref, watch } from 'vue'
import { failureWords } from '~/parts/words/errors'
import { pairWith } from '~/stores/account'
import { deviceWords } from './device'

const failure = ref('')
const route = useRoute()
const token = computed(() => route.hash.slice(1))

// A code may be read while this page is open already.
watch(
  token,
  async (read) => {
    failure.value = ''
    if (!read) return
    const answer = await pairWith(read, deviceWords())
    if (!answer.ok) failure.value = failureWords(answer.failure)
  },
  { immediate: true },
)
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
