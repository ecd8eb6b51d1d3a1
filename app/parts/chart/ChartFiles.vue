<script setup lang="ts">
/** A chart, taken out as a file of one's choice. Usage: <ChartFiles what="drying curve" name="a-tile-drying" :svg="() => …" :csv="() => …" /> */
import { Download } from '@lucide/vue'
import { computed } from 'vue'
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
const ways = computed(() => {
  const { csv, name } = props
  return [
    { label: 'Picture (PNG)', act: savePng },
    { label: 'Drawing (SVG)', act: saveSvg },
    ...(csv ? [{ label: 'Table (CSV)', act: () => saveFile(`${name}.csv`, 'text/csv', csv()) }] : []),
  ]
})
</script>

<template>
  <span class="save">
    <MenuButton label="Save" :aria-label="`Save the ${what}`" :items="ways">
      <Download :size="18" aria-hidden="true" /> Save
    </MenuButton>
  </span>
</template>

<style scoped>
.save :deep(> button) {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
  min-height: 44px;
  padding: 0 var(--s3);
  font-weight: 700;
  border: 1px solid currentColor;
  border-radius: 0.6rem;
  background: transparent;
  color: inherit;
  cursor: pointer;
}
</style>
