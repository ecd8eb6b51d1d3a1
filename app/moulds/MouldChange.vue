<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMouldSaving } from './useMouldSaving'
import { useWorkshop } from '~/stores/workshop'
import { useUnits } from '~/parts/show/useUnits'
import { mouldLines } from '~/parts/form/cardLines'
import { mouldDraftOf, mouldInputOf, type MouldDraft } from '~/parts/mould/mouldDraft'
import type { MouldInput } from '~~/shared/moulds'

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const workshop = useWorkshop()
const { failure, busy, save, theirs, clearConflict } = useMouldSaving(id)
const units = useUnits()
await workshop.ready

const card = computed(() => workshop.moulds.find((m) => m.id === id))
const draft = ref<MouldDraft | undefined>(card.value && mouldDraftOf(card.value))
const seenRevision = ref(card.value?.revision ?? 1)

async function keep() {
  if (draft.value && (await save(draft.value, seenRevision.value))) await router.push(`/moulds/${id}`)
}
const lines = (mould: MouldInput) =>
  mouldLines(mould, units, (of) => workshop.plasters.find((p) => p.id === of)?.name ?? '?')
function keepMine() {
  seenRevision.value = theirs.value!.revision
  void keep()
}
function takeTheirs() {
  draft.value = mouldDraftOf(theirs.value!)
  seenRevision.value = theirs.value!.revision
  clearConflict()
}
</script>

<template>
  <div class="page">
    <template v-if="draft">
      <h1>{{ card?.name ?? 'Change the mould' }}</h1>
      <ConflictNote
        v-if="theirs"
        :mine="lines(mouldInputOf(draft))"
        :theirs="lines(theirs)"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <MouldEditor v-model="draft" :failure="failure" :busy="busy" :is-new="false" @save="keep" />
    </template>
    <template v-else>
      <h1>This mould is not here (any more).</h1>
      <NuxtLink to="/moulds">Back to the shelf</NuxtLink>
    </template>
  </div>
</template>

<style scoped>
.page {
  width: 100%;
  display: grid;
  gap: var(--s4);
}
</style>
