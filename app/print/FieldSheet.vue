<script setup lang="ts">
/**
 * A sheet for the field: blank lines to be filled out there with a pencil, or filled with what was found since.
 * Usage: <FieldSheet :filled="false" />
 */
import { computed, watch } from 'vue'
import { measuredWords } from '~/parts/field/measures'
import { isScaled, wayOf } from '~/parts/field/derive'
import { GROUND_NAMES, MARK_NAMES } from '~/parts/field/words'
import { castsOfPrint, loadCastsOf } from '~/parts/field/usePrintCasts'
import { counted } from '~/parts/show/counted'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { VERDICT_WORDS } from '~/parts/words/pour'
import { measure, type MarkKind } from '#core/field'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import type { MouldCard } from '~~/shared/moulds'
import type { Find } from '~~/shared/finds'

const { filled } = defineProps<{ filled: boolean }>()
const workshop = useWorkshop()
const pours = usePours()
const units = useUnits()

const ON_A_SHEET = 4
/** So many fill three sheets; the list has the others. */
const MOST_FILLED = 3 * ON_A_SHEET

interface Found {
  card: MouldCard
  find: Find
}
const measured = ({ find }: Found, kinds: readonly MarkKind[]) =>
  find.shots
    .filter(isScaled)
    .flatMap((shot) =>
      shot.marks
        .filter((m) => kinds.includes(m.kind))
        .flatMap((m) => {
          const found = measure(shot, m)
          return found.ok ? [`${MARK_NAMES[m.kind]} ${measuredWords(found.measured, units)}`] : []
        }),
    )
    .join('; ')
/** The pour of it that is known here, the last one. */
function pourOf({ card }: Found) {
  const record = castsOfPrint(card.id)[0]
  return record && pours.factsOf(record)
}
const doneAt = (found: Found, step: 'start_sift' | 'pour' | 'demould') => {
  const atMs = pourOf(found)?.doneAtMs[step]
  return atMs === undefined ? '' : momentText(atMs, 0)
}

const LINES: readonly { label: string; of: (found: Found) => string }[] = [
  { label: 'Name', of: ({ card }) => card.name },
  { label: 'Where', of: ({ find }) => find.place },
  {
    label: 'Ground, weather, light',
    of: ({ find }) =>
      [
        GROUND_NAMES[find.ground],
        find.weather,
        find.light,
        typeof find.airTempC === 'number' ? units.temp(find.airTempC) : '',
      ]
        .filter(Boolean)
        .join(', '),
  },
  {
    label: 'Long × wide',
    of: (found) => {
      const way = wayOf(found.card)
      const traced = measured(found, ['length', 'width'])
      return traced || (way ? `${units.size(way.printLengthMm)}, longest` : '')
    },
  },
  { label: 'Depths by stick', of: ({ find }) => find.depthsMm.map((mm) => units.size(mm)).join(', ') },
  { label: 'Stride, straddle', of: (found) => measured(found, ['stride', 'straddle', 'angle']) },
  {
    label: 'Photographs',
    of: ({ card }) => (card.photos.length > 0 ? counted(card.photos.length, 'photograph') : ''),
  },
  { label: 'Powder in at', of: (found) => doneAt(found, 'start_sift') },
  { label: 'Poured at', of: (found) => doneAt(found, 'pour') },
  { label: 'Lifted at', of: (found) => doneAt(found, 'demould') },
  {
    label: 'How it came out',
    of: (found) => {
      const verdict = pourOf(found)?.verdict
      return verdict ? VERDICT_WORDS[verdict.verdict] : ''
    },
  },
]

const finds = computed<Found[]>(() =>
  (filled ? workshop.moulds : [])
    .flatMap((card) => (card.find ? [{ card, find: card.find }] : []))
    .sort((a, b) => b.find.foundAtMs - a.find.foundAtMs)
    .slice(0, MOST_FILLED),
)
watch(
  () => finds.value.map((f) => f.card.id).join(),
  () => void Promise.all(finds.value.map((f) => loadCastsOf(f.card.id))),
  { immediate: true },
)
/** Columns of each sheet; nothing stands in one that is blank. */
const sheets = computed<(Found | undefined)[][]>(() => {
  const all: (Found | undefined)[] = finds.value
  const count = Math.max(1, Math.ceil(all.length / ON_A_SHEET))
  return Array.from({ length: count }, (_, s) =>
    Array.from({ length: ON_A_SHEET }, (_column, c) => all[s * ON_A_SHEET + c]),
  )
})
</script>

<template>
  <PrintPage
    :back="filled ? '/field' : '/field/pack'"
    :back-name="filled ? 'Back to the field' : 'Back to packing'"
  >
    <section v-for="(columns, s) in sheets" :key="s" class="sheet">
      <h1>Field sheet</h1>
      <p>Day, place, who: <span class="blank" /></p>
      <table>
        <thead>
          <tr>
            <th scope="col" />
            <th v-for="(_found, c) in columns" :key="c" scope="col">Print {{ s * ON_A_SHEET + c + 1 }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in LINES" :key="line.label">
            <th scope="row">{{ line.label }}</th>
            <td v-for="(found, c) in columns" :key="c">{{ found ? line.of(found) : '' }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </PrintPage>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: var(--s3);
  break-after: page;
}
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
th,
td {
  border: 1.5px solid var(--ink);
  height: 3.4rem;
  padding: var(--s1) var(--s2);
  text-align: left;
  vertical-align: top;
  font-size: 0.95rem;
}
.blank {
  display: inline-block;
  width: min(24rem, 55vw);
  border-bottom: 1.5px solid var(--ink);
}
/* On a small screen two stand for all; on paper they all do. */
@media screen and (max-width: 48rem) {
  tr > :nth-child(n + 4) {
    display: none;
  }
}
</style>
