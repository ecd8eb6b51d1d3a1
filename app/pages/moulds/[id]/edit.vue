<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useMouldSaving } from '~/composables/useMouldSaving'
import { useWorkshop } from '~/stores/workshop'
import { mouldDraftOf, type MouldDraft } from '~/utils/mouldDraft'

const id = String(useRoute().params.id)
const router = useRouter()
const workshop = useWorkshop()
const { failure, busy, save } = useMouldSaving(id)
await Promise.all([workshop.loadStock(), workshop.loadMoulds()])

const card = computed(() => workshop.moulds.find((m) => m.id === id))
const draft = ref<MouldDraft | undefined>(card.value && mouldDraftOf(card.value))
const seenRevision = ref(card.value?.revision ?? 1)
// After a refusal the newest revision is what a second try starts from: the caster has been told.
watch(failure, (message) => message && card.value && (seenRevision.value = card.value.revision))
watch(
  () => card.value?.revision,
  (now) => {
    if (failure.value && now !== undefined) seenRevision.value = now
  },
)

async function keep() {
  if (draft.value && (await save(draft.value, seenRevision.value))) await router.push(`/moulds/${id}`)
}
</script>

<template>
  <div class="page">
    <template v-if="draft">
      <h1>{{ card?.name ?? 'Change the mould' }}</h1>
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
