<script setup lang="ts">
/** What is kept in mind of a mould, until it is mended. Usage: <MouldHeeds :mould-id="id" :now-ms /> */
import Button from 'primevue/button'
import { computed } from 'vue'
import { dayText } from '~/parts/show/time'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { useHeeds } from '~/stores/heeds'

const props = defineProps<{ mouldId: string; nowMs: number }>()
const heeds = useHeeds()
const rows = computed(() => {
  const lines = heeds.of([`mould:${props.mouldId}`])
  return [...new Set(lines.map((l) => l.cause))].map((cause) => {
    const those = lines.filter((l) => l.cause === cause)
    return { cause, those, last: those[0]! }
  })
})
</script>

<template>
  <section v-if="rows.length > 0" class="slab" aria-labelledby="m-heeds">
    <h2 id="m-heeds">To keep in mind</h2>
    <p class="soft">Each plan of this mould says and sets it, until it is mended.</p>
    <ul>
      <li v-for="{ cause, those, last } in rows" :key="cause">
        <p>
          <b>{{ CAUSE_WORDS[cause].name }}.</b> {{ CAUSE_WORDS[cause].next }}
          <span class="soft">
            Since <NuxtLink :to="`/casts/${last.pourId}`">{{ last.piece }}</NuxtLink>,
            {{ dayText(last.atMs, nowMs) }}.
          </span>
        </p>
        <Button
          severity="secondary"
          label="It is mended"
          :aria-label="`It is mended: ${CAUSE_WORDS[cause].name}`"
          @click="heeds.mend(those)"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s3);
}
li {
  display: grid;
  gap: var(--s2);
  justify-items: start;
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
</style>
