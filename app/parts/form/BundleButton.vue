<script setup lang="ts">
/** One pour or mould as a file of its own. Usage: <BundleButton :request="{ of: 'pour', id }" /> */
import { Download } from '@lucide/vue'
import Button from 'primevue/button'
import { onBeforeUnmount, ref } from 'vue'
import { failureWords } from '~/parts/words/errors'
import { beginExport, fetchBundle, followBundle } from '~/stores/bundles'
import type { ExportRequest } from '~~/shared/bundle'

const props = defineProps<{ request: ExportRequest }>()
const busy = ref(false)
const failure = ref('')
let following: { stop: () => void } | undefined

async function save() {
  busy.value = true
  failure.value = ''
  const answer = await beginExport(props.request)
  if (!answer.ok) {
    busy.value = false
    failure.value = failureWords(answer.failure)
    return
  }
  following = followBundle(answer.value.id, (job) => {
    busy.value = job.state === 'running'
    if (job.state === 'ready') fetchBundle(job.id)
    if (job.state === 'failed') failure.value = failureWords({ code: job.failure ?? 'internal', fields: [] })
  })
}
onBeforeUnmount(() => following?.stop())
</script>

<template>
  <Button severity="secondary" :disabled="busy" @click="save"
    ><Download :size="18" aria-hidden="true" />{{ busy ? 'Writing…' : 'As a file' }}</Button
  >
  <p v-if="failure" role="alert">{{ failure }}</p>
</template>
