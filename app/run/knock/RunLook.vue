<script setup lang="ts">
/** What the bowl should look like now, from the models. Usage: <RunLook :facts :now-ms /> */
import { computed } from 'vue'
import { bowlLook, type PourOutlook } from '#core/pour'
import { lookWords } from '~/parts/words/look'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const look = computed(() => bowlLook(props.facts, props.nowMs))
</script>

<template>
  <figure v-if="look" data-testid="bowl-look">
    <MixLook :look="look" :label="lookWords(look)" />
    <figcaption aria-hidden="true">{{ lookWords(look) }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  gap: var(--s1);
  flex: none;
  width: 8rem;
  margin: 0;
  line-height: 1.2;
}
/* There is room for one of both, and what it says is drawn. */
@media (max-width: 43rem) {
  figure {
    width: 6.2rem;
    margin-left: auto;
  }
  figcaption {
    display: none;
  }
}
</style>
