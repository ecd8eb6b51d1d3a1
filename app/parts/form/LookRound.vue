<script setup lang="ts">
/** Into the demo workshop, beside one's own, and back again any time. Usage: <LookRound /> */
import { ref } from 'vue'
import { failureWords } from '~/parts/words/errors'
import { lookRound } from '~/stores/workshopsHere'

const isLoading = ref(false)
const failure = ref('')
async function go() {
  isLoading.value = true
  failure.value = ''
  const entered = await lookRound()
  if (entered.ok) return
  isLoading.value = false
  failure.value = failureWords(entered.failure)
}
</script>

<template>
  <button type="button" class="ghost" :disabled="isLoading" @click="go">
    {{ isLoading ? 'Setting it up…' : 'Look round the demo workshop' }}
  </button>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>
