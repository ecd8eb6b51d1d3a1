<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <RecipeCard :id="id" />
</template>
