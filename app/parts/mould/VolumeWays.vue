<script setup lang="ts">
/** The ways to find a volume, as pictures to press. Usage: <VolumeWays :by="method.by" @choose="…" /> */
import { WAYS, type VolumeBy } from '#core/mould'
import { SHOWN_WAYS } from './ways'

const { by: chosen } = defineProps<{ by: VolumeBy }>()
const emit = defineEmits<{ choose: [by: VolumeBy] }>()
</script>

<template>
  <div class="ways" role="group" aria-label="How the volume is found">
    <button
      v-for="way in WAYS"
      :key="way.by"
      type="button"
      class="way"
      :aria-pressed="chosen === way.by"
      @click="emit('choose', way.by)"
    >
      <component :is="SHOWN_WAYS[way.by].icon" :size="22" aria-hidden="true" />{{ SHOWN_WAYS[way.by].name }}
    </button>
  </div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: var(--s1);
}
.way {
  border: 2px solid var(--line);
  background: transparent;
  color: var(--ink);
  font-weight: 600;
  cursor: pointer;
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 2px;
  min-height: 4.2rem;
  padding: var(--s1);
  border-radius: 0.9rem;
  font-size: 0.84rem;
  line-height: 1.1;
  text-align: center;
}
.way[aria-pressed='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--plaster);
}
@media (max-width: 43rem) {
  .ways {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
