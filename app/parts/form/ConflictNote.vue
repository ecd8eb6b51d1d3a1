<script setup lang="ts">
/**
 * Somebody else changed the same thing meanwhile: both, side by side, and the choice.
 * Usage: <ConflictNote :mine :theirs @mine="…" @theirs="…" />
 */
import Button from 'primevue/button'
import { computed, onMounted, useTemplateRef } from 'vue'
import { differences, type CardLines } from './cardLines'

const props = defineProps<{ mine: CardLines; theirs: CardLines }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
const note = useTemplateRef('note')
// Where the form is long it would stand out of sight.
onMounted(() => note.value?.scrollIntoView({ block: 'nearest' }))
const rows = computed(() => differences(props.mine, props.theirs))
</script>

<template>
  <section ref="note" class="conflict" role="alert">
    <p><b>Somebody else changed this meanwhile.</b> Which is to stay?</p>
    <table v-if="rows.length > 0">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">What</span></th>
          <th scope="col">Yours</th>
          <th scope="col">Theirs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[what, here, there] in rows" :key="what">
          <th scope="row">{{ what }}</th>
          <td>{{ here }}</td>
          <td>{{ there }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Both say the same.</p>
    <div class="acts">
      <Button type="button" label="Keep mine" @click="emit('mine')" />
      <Button type="button" severity="secondary" label="Take theirs" @click="emit('theirs')" />
    </div>
  </section>
</template>

<style scoped>
.conflict {
  border-left: 6px solid var(--hot);
  padding: var(--s3) var(--s4);
  background: var(--hot-light);
  display: grid;
  gap: var(--s3);
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: var(--s1) var(--s3) var(--s1) 0;
  overflow-wrap: anywhere;
}
tbody th {
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
</style>
