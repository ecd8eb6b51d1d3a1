<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <MouldCardPage :id="id" />
</template>
