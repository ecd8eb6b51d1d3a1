<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import Button from 'primevue/button'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, ref, shallowRef, watch } from 'vue'
import { VERDICTS, viewPour, type Verdict } from '#core/pour'
import type { ListQuery } from '~~/shared/contracts'
import type { Page, PourAnswer } from '~~/shared/records'
import { callApi } from '~/composables/useApi'
import { useNow } from '~/composables/useClock'
import { usePours } from '~/stores/pours'
import { dayText } from '~/utils/time'
import { rawPiece } from '~/utils/rawRecord'
import { ERROR_WORDS, STAGE_WORDS, VERDICT_WORDS } from '~/utils/words'

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
const offset = ref(0)
const page = shallowRef<{ ids: string[]; total: number }>({ ids: [], total: 0 })
const loading = ref(true)
const failure = ref('')

let latest = 0
async function load() {
  const mine = ++latest
  loading.value = true
  const query: ListQuery = { q: settled.value, offset: offset.value, limit: ROWS }
  if (filter.value === 'open') query.state = 'open'
  else if (filter.value !== 'all') query.verdict = filter.value
  const answer = await callApi<Page<PourAnswer>>('/api/pours', { query })
  // An answer to an older question than the last one asked is not shown.
  if (mine !== latest) return
  loading.value = false
  failure.value = answer.ok ? '' : ERROR_WORDS[answer.failure.code]
  if (!answer.ok) return
  pours.put(...answer.value.items)
  page.value = { ids: answer.value.items.map((r) => r.id), total: answer.value.total }
}
watch([settled, filter], () => {
  offset.value = 0
})
watch([settled, filter, offset], load, { immediate: true })

const rows = computed(() =>
  page.value.ids.flatMap((id) => {
    const broken = pours.unreadable.get(id)
    if (broken)
      return {
        id,
        piece: rawPiece(broken),
        mould: '',
        plaster: '',
        ratio: '',
        rings: [0, 0, 0, 0, 0, 0, 0, 0, 0],
        failed: true,
        state: 'Cannot be read',
        reason: '',
        day: dayText(broken.createdAtMs, now.value),
      }
    const record = pours.records.get(id)
    const facts = record && pours.factsOf(record)
    if (!record || !facts) return []
    const { piece, mould, plaster, consistency } = record.plan
    const view = viewPour(facts, now.value)
    return {
      id,
      piece,
      mould: mould.name,
      plaster: plaster.name,
      ratio: `${consistency.toFixed(0)} water to 100`,
      rings: view.rings,
      failed: view.status === 'failed',
      state: facts.verdict ? VERDICT_WORDS[facts.verdict.verdict] : STAGE_WORDS[view.stage],
      reason: facts.verdict?.reason ?? '',
      day: dayText(record.createdAtMs, now.value),
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
      <p class="soft count" role="status">{{ loading ? 'Looking…' : `${page.total} found` }}</p>
    </div>
    <p v-if="failure" class="failure" role="alert">
      {{ failure }} <Button label="Try again" @click="load" />
    </p>
    <DataTable
      v-else
      :value="rows"
      lazy
      paginator
      :always-show-paginator="false"
      :rows="ROWS"
      :first="offset"
      :total-records="page.total"
      data-key="id"
      row-hover
      @page="offset = $event.first"
      @row-click="open"
    >
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
