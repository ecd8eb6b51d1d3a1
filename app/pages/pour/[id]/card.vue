<script setup lang="ts">
import { usePour } from '~/composables/usePour'
import { useWorkshop } from '~/stores/workshop'

const id = String(useRoute().params.id)
const { record, failure } = usePour(id)
</script>

<template>
  <PrintPage :back="`/pour/${id}`" back-name="Back to the pour">
    <WeighOutCard v-if="record" :plan="record.plan" :title="record.plan.piece" />
    <h1 v-else>{{ failure || 'Fetching the pour…' }}</h1>
  </PrintPage>
</template>
