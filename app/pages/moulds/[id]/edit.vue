<script setup lang="ts">
const id = String(useRoute().params.id)
</script>

<template>
  <MouldChange :id="id" />
</template>
