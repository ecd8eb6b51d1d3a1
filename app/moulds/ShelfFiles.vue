<script setup lang="ts">
/** The shelf out to files and in from them. Usage: <ShelfFiles /> */
import { newId } from '~~/shared/newId'
import { TABLE_FAULT_WORDS } from './words'
import { rounded } from '~/parts/show/figures'
import { Download, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref, useTemplateRef } from 'vue'
import { mouldsFromCsv, mouldsToCsv, type MouldTableRow } from '#core/formats'
import { usualFacts } from '#core/mould'
import { useWorkshop } from '~/stores/workshop'
import { saveFile } from '~/parts/show/saveFile'
import { castsOf } from '~/parts/mould/shelf'
import { ERROR_WORDS } from '~/parts/words/errors'
import { saysWhere } from '~~/shared/findPlace'
import type { MouldBundle } from '~~/shared/moulds'

const workshop = useWorkshop()
const fileInput = useTemplateRef('fileInput')
const said = ref('')
const problems = ref<string[]>([])
const busy = ref(false)
/** Where a print lies leaves the workshop only where that is wished. */
const withPlaces = ref(false)
const hasPlaces = computed(() => workshop.moulds.some(saysWhere))

function exportCsv() {
  const rows = workshop.moulds.map((m) => ({
    name: m.name,
    material: m.facts.material,
    purpose: m.purpose,
    holdsMl: m.cavityMl,
    plusMinusMl: m.plusMinusMl,
    thicknessMm: m.thicknessMm,
    casts: castsOf(m),
    note: m.note,
  }))
  saveFile('moulds.csv', 'text/csv', mouldsToCsv(rows))
}

function bundleOf(rows: readonly MouldTableRow[]): MouldBundle {
  return {
    format: 'nine-ripples.moulds',
    version: 1,
    sets: [],
    moulds: rows.map((row) => ({
      id: newId(),
      name: row.name,
      purpose: row.purpose,
      facts: usualFacts(row.material),
      volume: {
        parts: [
          {
            role: 'add',
            count: 1,
            method: {
              by: 'known',
              volumeMl: row.holdsMl,
              plusMinusPct: Math.min(50, rounded((100 * row.plusMinusMl) / row.holdsMl, 1)),
            },
          },
        ],
        cavities: 1,
        check: null,
        trust: 'parts',
      },
      thicknessMm: row.thicknessMm,
      isSpill: false,
      castsBefore: row.casts,
      lifeCasts: null,
      note: row.note,
      find: null,
      usualPlaster: null,
      photos: [],
    })),
  }
}

async function send(file: File) {
  busy.value = true
  const answer = await workshop.importMoulds(file)
  busy.value = false
  if (!answer.ok) {
    const { code, fields } = answer.failure
    problems.value = [
      `${ERROR_WORDS[code]} Nothing was taken over.`,
      ...fields.slice(0, 5).map((f) => `${f.path}: ${f.message}`),
    ]
    return
  }
  const { added, same, kept, plasterMissing, setsAdded } = answer.value
  said.value = [
    `${added} put on the shelf`,
    ...(setsAdded > 0 ? [`${setsAdded} sets`] : []),
    ...(same > 0 ? [`${same} there already`] : []),
    ...(kept.length > 0 ? [`left as they are, since they differ here: ${kept.join(', ')}`] : []),
    ...plasterMissing.map(
      ({ mould, plaster }) => `${mould}: no card here for its plaster, ${plaster}; choose one`,
    ),
  ].join('; ')
}

/** More rows than this is no shelf. */
const MAX_TABLE_BYTES = 20_000_000
async function readFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  said.value = ''
  problems.value = []
  if (!file) return
  if (/\.csv$/i.test(file.name)) {
    if (file.size > MAX_TABLE_BYTES) {
      problems.value = ['This table is larger than 20 MB.']
      return
    }
    const { rows, problems: found } = mouldsFromCsv(await file.text())
    if (rows.length > 0) await send(new File([JSON.stringify(bundleOf(rows))], 'moulds.json'))
    problems.value.push(
      ...found
        .slice(0, 8)
        .map((p) => `Line ${p.line}, ${p.column}: ${TABLE_FAULT_WORDS[p.code]}${p.at ? ` (${p.at})` : ''}.`),
    )
    return
  }
  await send(file)
}
</script>

<template>
  <div class="files">
    <input
      ref="fileInput"
      type="file"
      accept=".json,.csv"
      class="visually-hidden"
      tabindex="-1"
      aria-label="File of moulds"
      @change="readFile"
    />
    <Button severity="secondary" :disabled="busy" @click="fileInput?.click()"
      ><Upload :size="18" aria-hidden="true" />{{ busy ? 'Reading…' : 'Read in' }}</Button
    >
    <label v-if="hasPlaces" class="tick-line">
      <input v-model="withPlaces" type="checkbox" /> with where prints lie
    </label>
    <a
      class="p-button p-component p-button-secondary"
      :href="`/api/moulds/export${withPlaces ? '?places' : ''}`"
      download="moulds.json"
      ><Download :size="18" aria-hidden="true" />JSON</a
    >
    <Button severity="secondary" @click="exportCsv"><Download :size="18" aria-hidden="true" />CSV</Button>
    <p role="status">{{ said }}</p>
    <ul v-if="problems.length > 0" class="problems" role="alert">
      <li v-for="p in problems" :key="p">{{ p }}</li>
    </ul>
  </div>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.problems {
  width: 100%;
  margin: 0;
  color: var(--hot);
  font-weight: 600;
}
</style>
