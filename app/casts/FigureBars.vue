<script setup lang="ts">
/** Bars with their words, each a way to what it counts. Usage: <FigureBars title="…" :bars="[{ key, label, value, text, to }]" /> */
import { computed } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import Papa from 'papaparse'
import { barsSvg, type Bar } from '~/parts/chart/barsSvg'
import { lookColours } from '~/parts/chart/colours'
import { rounded } from '~/parts/show/figures'
import { fileName } from '~/parts/show/saveFile'

const props = defineProps<{
  title: string
  bars: readonly (Bar & { key: string; to: RouteLocationRaw })[]
  empty?: string
}>()
const most = computed(() => Math.max(...props.bars.map((b) => b.value), 1e-9))
const csv = () =>
  Papa.unparse(
    props.bars.map(({ label, value, text }) => ({ what: label, value, text })),
    { newline: '\n', escapeFormulae: true },
  )
</script>

<template>
  <section class="slab" :aria-label="title">
    <h2>{{ title }}</h2>
    <p v-if="bars.length === 0" class="soft">{{ empty }}</p>
    <ul v-else>
      <li v-for="bar in bars" :key="bar.key">
        <NuxtLink :to="bar.to">
          <span class="words"><b>{{ bar.label }}</b> <span>{{ bar.text }}</span></span>
          <i
            :class="{ over: bar.over }"
            :style="{ width: `${rounded((100 * bar.value) / most, 1)}%` }"
            aria-hidden="true"
          />
        </NuxtLink>
      </li>
    </ul>
    <ChartFiles
      v-if="bars.length > 0"
      :what="title"
      :name="fileName('log', title.toLowerCase().replaceAll(/[^a-z]+/g, '-'))"
      :svg="() => barsSvg(title, bars, lookColours())"
      :csv="csv"
    />
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
a {
  display: grid;
  gap: 0.2rem;
  min-height: 44px;
  align-content: center;
  color: inherit;
  text-decoration: none;
}
a:hover b {
  text-decoration: underline;
}
.words {
  display: flex;
  justify-content: space-between;
  gap: var(--s3);
}
i.over {
  background: var(--hot);
}
i {
  height: 0.8rem;
  min-width: 3px;
  border-radius: 0.4rem;
  background: var(--wet);
}
</style>
