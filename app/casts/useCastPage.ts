import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import type { Verdict } from '#core/pour'
import { ERROR_WORDS } from '~/parts/words/errors'
import { callApi } from '~/stores/api'
import { keptCasts } from '~/stores/copies'
import type { ListQuery } from '~~/shared/contracts'
import { MOST_COUNTED, type CastLine, type CastPage } from '~~/shared/records'

const ROWS = 10
const TYPING_MS = 250

export type CastFilter = 'all' | 'open' | Verdict

/** The last casts as this device keeps them, looked through here. Tags it does not know. */
function fromKept(lines: readonly CastLine[], search: string, filter: CastFilter): CastPage {
  const words = search.trim().toLowerCase()
  const items = lines
    .filter((l) => `${l.piece} ${l.mould} ${l.plaster}`.toLowerCase().includes(words))
    .filter((l) => filter === 'all' || (filter === 'open' ? l.open : l.verdict === filter))
  return { items, total: items.length }
}

/** One page of the log, asked for anew whenever what is looked for changes. */
export function useCastPage(search: Ref<string>, filter: Ref<CastFilter>, tags: Ref<readonly string[]>) {
  const settled = refDebounced(search, TYPING_MS)
  /** Where each page so far began; the last is the one on screen. */
  const starts = ref([''])
  const page = shallowRef<CastPage>({ items: [], total: 0 })
  const loading = ref(true)
  const failure = ref('')
  /** The workshop does not answer: what is looked through is what this device keeps. */
  const isKept = ref(false)

  let latest = 0
  async function load() {
    const mine = ++latest
    loading.value = true
    const query: ListQuery = {
      q: settled.value,
      after: starts.value.at(-1),
      limit: ROWS,
      ...(tags.value.length > 0 ? { tags: tags.value.join() } : {}),
    }
    if (filter.value === 'open') query.state = 'open'
    else if (filter.value !== 'all') query.verdict = filter.value
    const asked = await callApi<CastPage>('/api/pours', { query })
    const kept = !asked.ok && asked.failure.code === 'unavailable' ? await keptCasts() : undefined
    const answer = kept ? { ok: true as const, value: fromKept(kept, settled.value, filter.value) } : asked
    // An answer to an older question than the last one asked is not shown.
    if (mine !== latest) return
    loading.value = false
    failure.value = answer.ok ? '' : ERROR_WORDS[answer.failure.code]
    isKept.value = kept !== undefined
    if (answer.ok) page.value = answer.value
  }
  watch([settled, filter, tags], () => (starts.value = ['']))
  watch([settled, filter, tags, starts], load, { immediate: true })

  const found = computed(() =>
    page.value.total >= MOST_COUNTED ? `${MOST_COUNTED} or more found` : `${page.value.total} found`,
  )
  const isFirst = computed(() => starts.value.length === 1)
  function older() {
    if (page.value.next !== undefined) starts.value = [...starts.value, page.value.next]
  }
  function newer() {
    starts.value = starts.value.slice(0, -1)
  }

  return { page, loading, failure, isKept, found, isFirst, load, older, newer }
}
