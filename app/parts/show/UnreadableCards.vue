<script setup lang="ts">
/** Cards that are there and cannot be read: named, with why and a way to take them out. Usage: <UnreadableCards :cards /> */
import type { UnreadableCard } from '~~/shared/records'
import { saveFile } from './saveFile'

defineProps<{ cards: readonly UnreadableCard[] }>()
function save({ id, raw }: UnreadableCard) {
  saveFile(`nine-ripples-${id}.json`, 'application/json', JSON.stringify(raw, null, 2))
}
</script>

<template>
  <ul v-if="cards.length > 0" class="broken">
    <li v-for="card in cards" :key="card.id">
      <span><b>{{ card.name }}</b> cannot be read ({{ card.unreadable[0] }}). It is kept as it is.</span>
      <button type="button" class="outline-button" @click="save(card)">Save it as a file</button>
    </li>
  </ul>
</template>

<style scoped>
.broken {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2) var(--s4);
  padding: var(--s2) var(--s3);
  border-left: 6px solid var(--hot);
}
</style>
