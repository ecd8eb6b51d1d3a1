<script setup lang="ts">
/**
 * What was measured on one photograph, each with its range, and its outline to take along.
 * Usage: <ShotFindings :shot :name="print.name" :opened @open="opened = $event" @take-away="…" />
 */
import { Download, Trash } from '@lucide/vue'
import Button from 'primevue/button'
import { computed } from 'vue'
import { measure, outlineOf } from '#core/field'
import { isScaled } from '~/parts/field/derive'
import { measuredWords } from '~/parts/field/measures'
import { MARK_NAMES, MEASURE_ISSUE_WORDS, SHOT_NOTE_WORDS } from '~/parts/field/words'
import { fileName, saveFile } from '~/parts/show/saveFile'
import { useUnits } from '~/parts/show/useUnits'
import type { FindShot } from '~~/shared/finds'
import { outlineCsv, outlineSvg } from './outlineFiles'

const props = defineProps<{ shot: FindShot; name: string; opened: number | undefined }>()
const emit = defineEmits<{ open: [index: number]; takeAway: [index: number] }>()
const units = useUnits()

/** To two figures. */
function rounded(value: number): number {
  const step = 10 ** (Math.floor(Math.log10(Math.max(1, value))) - 1)
  return Math.round(value / step) * step
}
const marks = computed(() =>
  props.shot.marks.map((m) => {
    if (!isScaled(props.shot)) return { name: MARK_NAMES[m.kind], words: '', notes: [] as string[] }
    const found = measure(props.shot, m)
    return found.ok
      ? {
          name: MARK_NAMES[m.kind],
          words: measuredWords(found.measured, units),
          notes: found.measured.notes.map((n) => SHOT_NOTE_WORDS[n]),
        }
      : { name: MARK_NAMES[m.kind], words: '', notes: [MEASURE_ISSUE_WORDS[found.issue.code]] }
  }),
)
const traced = computed(() =>
  isScaled(props.shot) && props.shot.outline
    ? outlineOf(props.shot, props.shot.outline.points, props.shot.outline.belowMm)
    : undefined,
)
const file = (end: string) => `${fileName(props.name, 'outline')}.${end}`
</script>

<template>
  <div class="found">
    <ul v-if="marks.length > 0" class="marks">
      <li v-for="(m, i) in marks" :key="i" :class="{ opened: i === opened }">
        <button type="button" class="name" @click="emit('open', i)">
          <span>{{ m.name }}</span> <b class="figure">{{ m.words || '–' }}</b>
        </button>
        <Button
          severity="secondary"
          :aria-label="`Take ${m.name.toLowerCase()} ${i + 1} away`"
          @click="emit('takeAway', i)"
          ><Trash :size="18"
        /></Button>
        <p v-for="note in m.notes" :key="note" class="soft small">{{ note }}</p>
      </li>
    </ul>
    <p v-if="traced?.ok">
      Within the outline
      <b
        >{{ units.area(traced.outline.areaMm2) }} ±
        {{ units.area(rounded(traced.outline.areaPlusMinusMm2)) }}</b
      >, {{ units.size(Math.round(traced.outline.lengthMm)) }} long,
      {{ units.size(Math.round(traced.outline.widthMm)) }} wide.
    </p>
    <div v-if="traced?.ok" class="row">
      <Button
        severity="secondary"
        @click="saveFile(file('svg'), 'image/svg+xml', outlineSvg(traced.outline, name))"
      >
        <Download :size="18" aria-hidden="true" /> Outline as SVG, true to scale
      </Button>
      <Button severity="secondary" @click="saveFile(file('csv'), 'text/csv', outlineCsv(traced.outline))">
        <Download :size="18" aria-hidden="true" /> as CSV
      </Button>
    </div>
    <p v-else-if="traced" class="failure" role="alert">{{ MEASURE_ISSUE_WORDS[traced.issue.code] }}</p>
  </div>
</template>

<style scoped>
.found {
  display: grid;
  gap: var(--s3);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
}
.marks {
  list-style: none;
  margin: 0;
  padding: 0;
}
.marks li {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 0 var(--s2);
  border-top: 2px solid var(--line);
  padding: var(--s1) 0;
}
.marks p {
  grid-column: 1 / -1;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--s3);
  min-height: 44px;
  border: 0;
  background: transparent;
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.name .figure {
  font-size: 1.35rem;
}
.opened .name span {
  text-decoration: underline;
}
</style>
