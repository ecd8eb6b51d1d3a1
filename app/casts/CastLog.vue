<script setup lang="ts">
import { figure } from '~/parts/show/figures'
import { refDebounced } from '@vueuse/core'
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, ref, shallowRef, watch } from 'vue'
import { VERDICTS, viewPour, type Verdict } from '#core/pour'
import type { ListQuery } from '~~/shared/contracts'
import { MOST_COUNTED, type CastLine, type CastPage } from '~~/shared/records'
import { callApi } from '~/stores/api'
import { useNow } from '~/stores/bench'
import { usePours } from '~/stores/pours'
import { dayText } from '~/parts/show/time'
import { ERROR_WORDS } from '~/parts/words/errors'
import { STAGE_WORDS, VERDICT_WORDS } from '~/parts/words/pour'

const ROWS = 10
const pours = usePours()
const now = useNow()

type Filter = 'all' | 'open' | Verdict
const FILTERS: { value: Filter; label: string }[] = [
  { value: 'all', label: 'All casts' },
  { value: 'open', label: 'Still on the go' },
  ...VERDICTS.map((value) => ({ value, label: VERDICT_WORDS[value] })),
]
const filter = ref<Filter>('all')
const search = ref('')
const settled = refDebounced(search, 250)
/** Where each page so far began; the last is the one on screen. */
const starts = ref([''])
const page = shallowRef<CastPage>({ items: [], total: 0 })
const loading = ref(true)
const failure = ref('')

let latest = 0
async function load() {
  const mine = ++latest
  loading.value = true
  const query: ListQuery = { q: settled.value, after: starts.value.at(-1), limit: ROWS }
  if (filter.value === 'open') query.state = 'open'
  else if (filter.value !== 'all') query.verdict = filter.value
  const answer = await callApi<CastPage>('/api/pours', { query })
  // An answer to an older question than the last one asked is not shown.
  if (mine !== latest) return
  loading.value = false
  failure.value = answer.ok ? '' : ERROR_WORDS[answer.failure.code]
  if (!answer.ok) return
  page.value = answer.value
}
watch([settled, filter], () => (starts.value = ['']))
watch([settled, filter, starts], load, { immediate: true })
function older() {
  if (page.value.next !== undefined) starts.value = [...starts.value, page.value.next]
}
const newer = () => (starts.value = starts.value.slice(0, -1))
const found = computed(() =>
  page.value.total >= MOST_COUNTED ? `${MOST_COUNTED} or more found` : `${page.value.total} found`,
)

/** Of a pour that is known here, what it is this moment; of the others, what the log says. */
function lineNow(
  line: CastLine,
): Pick<CastLine, 'rings' | 'stage' | 'verdict' | 'reason'> & { failed: boolean } {
  const record = pours.records.get(line.id)
  const facts = record && pours.factsOf(record)
  if (!facts)
    return { ...line, failed: line.verdict === 'failed' || line.verdict === 'abandoned' || line.unreadable }
  const view = viewPour(facts, now.value)
  return {
    rings: view.rings,
    stage: view.stage,
    failed: view.status === 'failed',
    verdict: facts.verdict?.verdict ?? null,
    reason: facts.verdict?.reason ?? '',
  }
}
const rows = computed(() =>
  page.value.items.map((line) => {
    const { rings, stage, failed, verdict, reason } = lineNow(line)
    const state = verdict ? VERDICT_WORDS[verdict] : STAGE_WORDS[stage]
    return {
      ...line,
      rings,
      failed,
      reason,
      ratio: line.consistency === null ? '' : `${figure(line.consistency)} water to 100`,
      state: line.unreadable ? 'Cannot be read' : state,
      day: dayText(line.createdAtMs, now.value),
    }
  }),
)
function open(event: { data: { id: string } }) {
  void navigateTo(`/casts/${event.data.id}`)
}
</script>

<template>
  <div class="page">
    <h1>Casts</h1>
    <div class="find">
      <label class="search"
        ><span>Search</span>
        <InputText v-model="search" type="search" placeholder="piece, mould or plaster" />
      </label>
      <LabelledSelect v-model="filter" label="Show" :options="FILTERS" />
      <p class="soft count" role="status">{{ loading ? 'Looking…' : found }}</p>
    </div>
    <p v-if="failure" class="failure" role="alert">
      {{ failure }} <Button label="Try again" @click="load" />
    </p>
    <DataTable v-else :value="rows" data-key="id" row-hover @row-click="open">
      <template #empty>
        <p class="soft empty">
          {{
            search || filter !== 'all'
              ? 'Nothing like that in the log.'
              : 'Nothing cast yet. The log fills itself from your pours.'
          }}
        </p>
      </template>
      <Column header="">
        <template #body="{ data: row }">
          <RingSign :rings="row.rings" :size="46" :label="row.state" :failed="row.failed" />
        </template>
      </Column>
      <Column header="Piece">
        <template #body="{ data: row }">
          <NuxtLink :to="`/casts/${row.id}`" class="piece">{{ row.piece }}</NuxtLink>
          <span class="soft under">{{ row.mould }}</span>
        </template>
      </Column>
      <Column header="Plaster" class="wide">
        <template #body="{ data: row }">
          {{ row.plaster }}<span class="soft under">{{ row.ratio }}</span>
        </template>
      </Column>
      <Column header="How it went">
        <template #body="{ data: row }">
          <b>{{ row.state }}</b><span class="soft under reason">{{ row.reason }}</span>
        </template>
      </Column>
      <Column header="Planned" class="wide">
        <template #body="{ data: row }">{{ row.day }}</template>
      </Column>
    </DataTable>
    <nav v-if="starts.length > 1 || page.next" class="turn" aria-label="Pages of the log">
      <Button severity="secondary" label="Newer" :disabled="starts.length === 1" @click="newer" />
      <Button severity="secondary" label="Older" :disabled="!page.next" @click="older" />
    </nav>
  </div>
</template>

<style scoped>
.page {
  width: 100%;
  display: grid;
  gap: var(--s4);
  align-content: start;
}
.find {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
  align-items: end;
}
.search {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  flex: 1 1 16rem;
  max-width: 26rem;
}
.count {
  padding-bottom: 0.8rem;
}
.piece {
  font-weight: 700;
  font-size: 1.1rem;
}
.under {
  display: block;
  font-size: 0.92rem;
}
.reason {
  max-width: 34ch;
}
.turn {
  display: flex;
  gap: var(--s3);
}
.empty {
  padding: var(--s6) 0;
  text-align: center;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
:deep(tbody tr) {
  cursor: pointer;
}
:deep(td) {
  vertical-align: middle;
}
@media (max-width: 43rem) {
  :deep(.wide) {
    display: none;
  }
  .reason {
    display: none;
  }
}
</style>
