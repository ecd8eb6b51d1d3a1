<script setup lang="ts">
const filled = useRoute().query.filled !== undefined
</script>

<template>
  <FieldSheet :filled="filled" />
</template>
