<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <FieldCard :id="id" />
</template>
