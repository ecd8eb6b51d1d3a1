<script setup lang="ts">
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const missing = props.error.status === 404
</script>

<template>
  <div class="page">
    <h1>{{ missing ? 'There is no such page' : 'Something went wrong on this page' }}</h1>
    <p v-if="!missing" class="soft">What you recorded is safe: it is sent as soon as it is made.</p>
    <p><a href="/">Back to the bench</a></p>
  </div>
</template>
