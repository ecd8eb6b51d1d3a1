<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { useMouldSaving } from './useMouldSaving'
import { firstMouldDraft } from '~/parts/mould/mouldDraft'

const router = useRouter()
// A reload must not lose a drawing.
const draft = useSessionStorage('nine-ripples.new-mould', firstMouldDraft(), { mergeDefaults: true })
const id = crypto.randomUUID()
const { failure, busy, save } = useMouldSaving(id)

async function keep() {
  if (!(await save(draft.value, null))) return
  draft.value = firstMouldDraft()
  await router.push(`/moulds/${id}`)
}
</script>

<template>
  <div class="page">
    <h1>Describe a mould</h1>
    <MouldEditor v-model="draft" :failure="failure" :busy="busy" is-new @save="keep" />
  </div>
</template>

<style scoped>
.page {
  width: 100%;
  display: grid;
  gap: var(--s4);
}
</style>
