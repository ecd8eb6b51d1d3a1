<script setup lang="ts">
import { usePour } from '~/parts/pour/usePour'

const { id } = defineProps<{ id: string }>()
const { record, failure } = usePour(id)
</script>

<template>
  <PrintPage :back="`/pour/${id}`" back-name="Back to the pour">
    <WeighOutCard v-if="record" :plan="record.plan" :title="record.plan.piece" />
    <h1 v-else>{{ failure || 'Fetching the pour…' }}</h1>
  </PrintPage>
</template>
