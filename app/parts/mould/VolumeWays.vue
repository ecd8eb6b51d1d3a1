<script setup lang="ts">
/** The ways to find a volume, as pictures to press. Usage: <VolumeWays :by="method.by" @choose="…" /> */
import {
  Box,
  CircleDot,
  Droplets,
  Footprints,
  Hand,
  Layers2,
  PencilRuler,
  Scale,
  Spline,
  Wheat,
} from '@lucide/vue'
import type { Component } from 'vue'
import { VOLUME_METHODS, type VolumeMethod } from '#core/mould'
import { METHOD_WORDS } from '~/parts/words/mould'

const { by: chosen } = defineProps<{ by: VolumeMethod['by'] }>()
const emit = defineEmits<{ choose: [by: VolumeMethod['by']] }>()

const ICONS: Record<VolumeMethod['by'], Component> = {
  water_fill: Droplets,
  dry_fill: Wheat,
  shape: Box,
  profile: Spline,
  ground: Footprints,
  displacement: Hand,
  shell: CircleDot,
  top_up: Layers2,
  weighed_cast: Scale,
  known: PencilRuler,
}
</script>

<template>
  <div class="ways" role="group" aria-label="How the volume is found">
    <button
      v-for="way in VOLUME_METHODS"
      :key="way"
      type="button"
      class="way"
      :aria-pressed="chosen === way"
      @click="emit('choose', way)"
    >
      <component :is="ICONS[way]" :size="22" aria-hidden="true" />{{ METHOD_WORDS[way].name }}
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
