<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <PrintRecord :id="id" />
</template>
