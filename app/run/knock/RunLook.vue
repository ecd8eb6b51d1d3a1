<script setup lang="ts">
/** What the bowl should look like now, from the models. Usage: <RunLook :facts :now-ms /> */
import { computed } from 'vue'
import { bowlLook, type PourOutlook } from '#core/pour'
import { lookWords } from '~/parts/words/look'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const look = computed(() => bowlLook(props.facts, props.nowMs))
</script>

<template>
  <figure v-if="look" class="look" data-testid="bowl-look">
    <MixLook :look="look" />
    <figcaption><b>As it should look.</b> {{ lookWords(look) }}</figcaption>
  </figure>
</template>

<style scoped>
.look {
  display: grid;
  grid-template-columns: 7rem minmax(0, 1fr);
  gap: var(--s3);
  align-items: center;
  margin: 0;
}
</style>
