<script setup lang="ts">
import { newId } from '~~/shared/newId'
import { useKeptHere } from '~/stores/kept'
import { ref } from 'vue'
import { useMouldSaving } from './useMouldSaving'
import { firstMouldDraft, mouldInputOf } from '~/parts/mould/mouldDraft'

// A reload must not lose a drawing.
const draft = useKeptHere('nine-ripples.new-mould', firstMouldDraft(), { mergeDefaults: true })
const { failure, busy, keep, theirs, keepMine, takeTheirs, lines } = useMouldSaving(
  newId(),
  draft,
  ref(null),
  () => (draft.value = firstMouldDraft()),
)
</script>

<template>
  <div class="page">
    <h1>Describe a mould</h1>
    <ConflictNote
      v-if="theirs"
      :mine="lines(mouldInputOf(draft))"
      :theirs="lines(theirs)"
      @mine="keepMine"
      @theirs="takeTheirs"
    />
    <MouldEditor v-model="draft" :failure="failure" :busy="busy" is-new @save="keep" />
  </div>
</template>
