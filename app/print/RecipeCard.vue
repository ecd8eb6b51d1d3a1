<script setup lang="ts">
import { computed } from 'vue'
import { useWorkshop } from '~/stores/workshop'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
await workshop.ready
const recipe = computed(() => workshop.recipes.find((r) => r.id === id))
</script>

<template>
  <PrintPage back="/plan" back-name="Back to the plan">
    <WeighOutCard v-if="recipe" :plan="recipe.plan" :title="recipe.name" />
    <h1 v-else>This recipe is not here (any more).</h1>
  </PrintPage>
</template>
