<script setup lang="ts">
import { computed, ref } from 'vue'
import { useMouldSaving } from './useMouldSaving'
import { useWorkshop } from '~/stores/workshop'
import { mouldDraftOf, mouldInputOf, type MouldDraft } from '~/parts/mould/mouldDraft'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
await workshop.ready

const card = computed(() => workshop.moulds.find((m) => m.id === id))
const draft = ref<MouldDraft | undefined>(card.value && mouldDraftOf(card.value))
const { failure, busy, keep, theirs, keepMine, takeTheirs, lines } = useMouldSaving(
  id,
  draft,
  ref(card.value?.revision ?? null),
)
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
