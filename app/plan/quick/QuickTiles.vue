<script setup lang="ts" generic="T extends string">
/** A question answered by one touch: tiles with a picture each. Usage: <QuickTiles v-model="fill" name="fill" :tiles @chosen="…" /> */
import type { Component } from 'vue'
import type { BowlLook } from '#core/mix'

defineProps<{
  /** Of the group, on this page alone. */
  name: string
  tiles: readonly { value: T; name: string; how: string; icon?: Component; look?: BowlLook }[]
}>()
const model = defineModel<T | ''>({ required: true })
</script>

<template>
  <div class="tiles">
    <label v-for="tile in tiles" :key="tile.value" :class="{ on: model === tile.value, drawn: tile.look }">
      <input v-model="model" type="radio" :name="name" :value="tile.value" />
      <MixLook v-if="tile.look" :look="tile.look" />
      <component :is="tile.icon" v-else-if="tile.icon" :size="28" aria-hidden="true" />
      <span><b>{{ tile.name }}</b><small>{{ tile.how }}</small></span>
    </label>
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  gap: var(--s2);
  grid-template-columns: repeat(auto-fill, minmax(min(10.2rem, 100%), 1fr));
}
label {
  position: relative;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: var(--s2);
  align-items: center;
  min-height: 4.4rem;
  padding: var(--s2) var(--s3);
  border: 2px solid var(--line);
  border-radius: 0.9rem;
  background: var(--plaster);
  line-height: 1.15;
  cursor: pointer;
}
label.drawn {
  grid-template-columns: minmax(0, 1fr);
  justify-items: center;
  text-align: center;
}
label.on {
  border-color: var(--wet);
  box-shadow: inset 0 0 0 2px var(--wet);
  background: var(--wet-light);
  color: #10262d;
}
[data-look='dim'] label.on {
  color: inherit;
}
input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  opacity: 0;
  cursor: pointer;
}
label:has(:focus-visible) {
  outline: 3px solid var(--ring);
  outline-offset: 2px;
}
label span {
  display: grid;
  min-width: 0;
  overflow-wrap: anywhere;
  hyphens: auto;
  gap: 2px;
}
small {
  font-size: 0.86rem;
}
@media (max-width: 30rem) {
  .tiles {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
  .tiles:has(.drawn) {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  label:not(.drawn) {
    padding: var(--s2);
  }
  label.drawn {
    padding: var(--s2) var(--s1);
  }
}
</style>
