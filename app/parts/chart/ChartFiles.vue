<script setup lang="ts">
/** A chart as files to take away. Usage: <ChartFiles what="drying curve" name="a-tile-drying" :svg="() => …" :csv="() => …" /> */
import { saveFile, saveUrl } from '~/parts/show/saveFile'
import { pngOfSvg } from './picture'

const props = defineProps<{
  /** In words, for a screen reader. */
  what: string
  /** Of the files, without what says their kind. */
  name: string
  svg: () => Promise<string> | string
  csv?: () => string
}>()

const saveSvg = async () => saveFile(`${props.name}.svg`, 'image/svg+xml', await props.svg())
const savePng = async () => saveUrl(`${props.name}.png`, await pngOfSvg(await props.svg()))
</script>

<template>
  <span class="files">
    <button type="button" :aria-label="`SVG, ${what}`" @click="saveSvg">SVG</button>
    <button type="button" :aria-label="`PNG, ${what}`" @click="savePng">PNG</button>
    <button
      v-if="csv"
      type="button"
      :aria-label="`CSV, ${what}`"
      @click="saveFile(`${name}.csv`, 'text/csv', csv())"
    >
      CSV
    </button>
  </span>
</template>

<style scoped>
.files {
  display: inline-flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
button {
  min-width: 44px;
  min-height: 40px;
  padding: 0 var(--s2);
  font-size: 0.92rem;
  font-weight: 700;
  border: 1px solid var(--line);
  border-radius: 0.6rem;
  background: transparent;
  color: inherit;
  cursor: pointer;
}
</style>
