<script setup lang="ts">
/** Prints out and in, as GeoJSON or GPX; where they lie goes along only where that is wished. Usage: <FieldFiles :cards /> */
import { Download, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { ref, useTemplateRef } from 'vue'
import { newId } from '~~/shared/newId'
import type { MouldCard } from '~~/shared/moulds'
import { counted } from '~/parts/show/counted'
import { saveFile } from '~/parts/show/saveFile'
import { failureWords } from '~/parts/words/errors'
import { firstPrint, newFind } from '~/parts/field/derive'
import { keptAs, type Fineness } from '~/parts/field/position'
import { useClock } from '~/stores/bench'
import { useKept } from '~/stores/kept'
import { useWorkshop } from '~/stores/workshop'
import { readFieldFile, toGeoJson, toGpx } from './fieldFiles'

const props = defineProps<{ cards: readonly MouldCard[] }>()
const workshop = useWorkshop()
const clock = useClock()
const fineness = useKept<Fineness>('nine-ripples.fineness', 'none')
const withPlaces = ref(false)
const input = useTemplateRef('input')
const said = ref('')
const failure = ref('')

const geoJson = () =>
  saveFile(
    'prints.geojson',
    'application/geo+json',
    `${JSON.stringify(toGeoJson(props.cards, withPlaces.value), null, 2)}\n`,
  )
const gpx = () => saveFile('prints.gpx', 'application/gpx+xml', toGpx(props.cards))

async function read() {
  const file = input.value?.files?.[0]
  if (!file) return
  input.value!.value = ''
  said.value = failure.value = ''
  const found = await readFieldFile(file)
  if (!found) {
    failure.value = 'This is no GeoJSON and no GPX, or larger than 5 MB.'
    return
  }
  let read = 0
  for (const { name, position, atMs, note } of found.places) {
    const find = {
      ...newFind('sand', atMs ?? Math.round(clock.nowMs())),
      position: keptAs(position, fineness.value, 0),
    }
    const print = firstPrint({
      name: name || `Print ${props.cards.length + read + 1}`,
      find,
      lengthMm: 100,
      widthMm: 80,
      depthMm: 15,
    })
    const answer = await workshop.saveMould(newId(), null, { ...print, note })
    if (!answer.ok) {
      failure.value = failureWords(answer.failure)
      return
    }
    read += 1
  }
  said.value = `${counted(read, 'print')} read in${found.others > 0 ? `, ${found.others} things that are no points left out` : ''}. Their size is a guess until they are measured${fineness.value === 'none' ? '; where they lie was not kept, as you wish it' : ''}.`
}
</script>

<template>
  <section class="slab files" aria-labelledby="files-title">
    <h2 id="files-title">Out and in</h2>
    <label class="tick-line"><input v-model="withPlaces" type="checkbox" /> with where they lie</label>
    <div class="button-row">
      <Button severity="secondary" :disabled="cards.length === 0" @click="geoJson">
        <Download :size="18" aria-hidden="true" /> GeoJSON
      </Button>
      <Button severity="secondary" :disabled="!withPlaces || cards.length === 0" @click="gpx">
        <Download :size="18" aria-hidden="true" /> GPX
      </Button>
      <Button severity="secondary" @click="input?.click()">
        <Upload :size="18" aria-hidden="true" /> Read one in
      </Button>
      <input
        ref="input"
        type="file"
        accept=".geojson,.json,.gpx,application/geo+json,application/gpx+xml"
        class="visually-hidden"
        tabindex="-1"
        aria-label="File of prints"
        @change="read"
      />
    </div>
    <p v-if="said" role="status">{{ said }}</p>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  </section>
</template>

<style scoped>
.files {
  display: grid;
  gap: var(--s3);
}
</style>
