<script setup lang="ts">
/** A record that cannot be read, as itself: why, its raw story, and a way to take it out. Usage: <RawRecord :pour /> */
import Button from 'primevue/button'
import { computed } from 'vue'
import type { UnreadablePour } from '~~/shared/records'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { rawFile, rawPiece } from './rawRecord'
import { saveFile } from './saveFile'
import { dayText } from './time'

const props = defineProps<{ pour: UnreadablePour }>()
const now = useNowBy(MS_PER.min)
const file = computed(() => rawFile(props.pour))
</script>

<template>
  <div class="page raw">
    <header class="slab">
      <p class="soft">Planned {{ dayText(pour.createdAtMs, now) }}</p>
      <h1>{{ rawPiece(pour) }}</h1>
      <p>
        <b>This record cannot be read.</b> It is kept as it is, nothing of it is lost, and every other pour
        goes on. What it holds can be taken out as a file.
      </p>
      <ul>
        <li v-for="line in pour.unreadable" :key="line">{{ line }}</li>
      </ul>
      <Button label="Save it as a file" @click="saveFile(file.name, 'application/json', file.text)" />
    </header>
    <section class="slab" aria-labelledby="raw-title">
      <h2 id="raw-title">Its story, as it lies there</h2>
      <pre tabindex="0">{{ file.text }}</pre>
    </section>
  </div>
</template>

<style scoped>
.raw {
  display: grid;
  gap: var(--s4);
  align-content: start;
}
header {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
pre {
  overflow: auto;
  max-height: 60dvh;
  font-size: 0.9rem;
  margin: var(--s2) 0 0;
}
</style>
