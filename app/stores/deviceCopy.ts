import { promiseTimeout, watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { MS_PER } from '#core/units'
import type { SettingsRecord } from '~~/shared/contracts'
import { LAST_CASTS, type CastPage, type PourAnswer, type PourRecord } from '~~/shared/records'
import { callApi } from './api'
import { useBench } from './bench'
import { copies, keepCasts, readCopies } from './copies'
import { ANSWERS, PICTURES_CACHE, type Copy } from './copyBox'
import { useForecasts, type KeptForecast } from './forecasts'
import { useKept } from './kept'
import { isLetIn, lostPlace } from './place'
import { usePours } from './pours'
import { useWorkshop } from './workshop'

const SETTLE = { debounce: 400, maxWait: 4000 }
/** Fetched by itself when it is older than that. */
const OLD_MS = MS_PER.h
const MOST_ANSWERS = 300
const POURS = 'pour'
const FORECASTS = 'forecast'
/** So long the bench has for itself before what has ended is read in, too [E]. */
const BENCH_FIRST_MS = 300

/**
 * The copy of the workshop on this device: written by the window that leads as things change, read by a window that the
 * workshop does not answer.
 */
export const useDeviceCopy = defineStore('deviceCopy', () => {
  const workshop = useWorkshop()
  const pours = usePours()
  const forecasts = useForecasts()
  const { clock, isReal } = useBench()
  /** When everything for a day away was last fetched, and what did not come. */
  const fetched = useKept('nine-ripples.away', { atMs: 0, missing: 0 })
  /** What stands here is the copy: when it was last known to be so. */
  const asOfMs = ref<number>()

  /** What the pours were forecast to do when they were last seen here: whoever shows them need not work it out anew. */
  async function readForecasts(): Promise<void> {
    try {
      const kept = await (await copies())?.all<KeptForecast>(FORECASTS)
      forecasts.fill((kept ?? []).map((c) => c.value))
    } catch {
      // They are worked out.
    }
  }

  /** Fills what the workshop has not answered for. */
  async function readIn(): Promise<void> {
    try {
      const copied = (await readCopies()) ?? []
      const of = <T>(kind: string) => copied.filter((c) => c.kind === kind) as Copy<T>[]
      const [settings] = of<SettingsRecord>('settings')
      const records = of<PourRecord>(POURS)
      const rows = workshop.listNames.map((name) => [name, of<{ id: string }>(name)] as const)
      if (!settings && records.length === 0 && rows.every(([, cards]) => cards.length === 0)) return
      forecasts.fill(of<KeptForecast>(FORECASTS).map((c) => c.value))
      const isNew = !workshop.isAnswered
      workshop.fill({
        ...(settings && { settings: settings.value }),
        ...Object.fromEntries(rows.map(([name, cards]) => [name, cards.map((c) => c.value)])),
      })
      pours.fill(records.filter((c) => c.isOpen).map((c) => c.value))
      if (isNew) asOfMs.value = Math.max(0, ...[settings, ...records].map((c) => c?.atMs ?? 0))
      // What has ended is behind the bench: it is worked out once that stands.
      await promiseTimeout(BENCH_FIRST_MS)
      pours.fill(records.filter((c) => !c.isOpen).map((c) => c.value))
    } catch (error) {
      console.error('what this device keeps could not be read', error)
    }
  }

  const written = new Map<string, Map<string, unknown>>()
  /** Writes what has changed of a kind since it was last written. */
  async function keep(kind: string, rows: readonly Pick<Copy, 'id' | 'value' | 'isOpen'>[]): Promise<void> {
    const held = await copies()
    if (!held) return
    const before = written.get(kind) ?? new Map<string, unknown>()
    const now = new Map(rows.map(({ id, value }) => [id, value]))
    const atMs = Math.round(clock.nowMs())
    const puts: Copy[] = rows
      .filter(({ id, value }) => before.get(id) !== value)
      .map((row) => ({ kind, ...row, atMs }))
    // Of cards all are known: what is no more may have gone while nobody looked. Of pours only those that were asked for.
    const isFirst = !written.has(kind) && kind !== POURS
    const known = isFirst ? (await held.all(kind)).map((c) => c.id) : [...before.keys()]
    const drops = known.filter((id) => !now.has(id)).map((id) => ({ kind, id }))
    written.set(kind, now)
    if (puts.length + drops.length > 0) await held.write(puts, drops)
  }
  const asRows = (values: readonly { id: string }[]) => values.map((value) => ({ id: value.id, value }))
  const keepPours = () =>
    tried(
      keep(
        POURS,
        worthKeeping.value.map((value) => ({ id: value.id, value, isOpen: pours.isOpen(value) })),
      ),
    )

  /** Copies of pours that this window was not told of: the last that ended stay, what was on the go is asked for again. */
  async function tidyPours(): Promise<void> {
    const held = await copies()
    const others = ((await held?.all<PourRecord>(POURS)) ?? []).filter((c) => !pours.records.has(c.id))
    for (const { kind, id } of others.filter((c) => c.isOpen))
      if ((await pours.load(id))?.code === 'not_found') await held?.write([], [{ kind, id }])
    const old = others
      .filter((c) => !c.isOpen)
      .sort((x, y) => y.value.createdAtMs - x.value.createdAtMs)
      .slice(LAST_CASTS)
    if (old.length > 0) await held?.write([], old)
  }
  const tried = (keeping: Promise<void>) =>
    keeping.catch((error: unknown) => console.error('this device has no room for a copy', error))

  /** Pours that are kept: those on the go and the last that ended. */
  const worthKeeping = computed(() => {
    const all = [...pours.records.values()]
    const ended = all.filter((r) => !pours.isOpen(r)).sort((a, b) => b.createdAtMs - a.createdAtMs)
    return [...all.filter(pours.isOpen), ...ended.slice(0, LAST_CASTS)]
  })

  /** For the window that leads: from here on what changes is written. */
  async function follow(): Promise<void> {
    if (!isReal || !(await copies())) return
    void prune()
    void tried(tidyPours())
    for (const name of workshop.listNames)
      watchDebounced(
        () => (workshop.isHad(name) ? workshop.cardsOf(name) : undefined),
        (cards) => cards && void tried(keep(name, asRows(cards))),
        { ...SETTLE, immediate: true },
      )
    watchDebounced(
      () => workshop.settings,
      (value) => value.revision > 0 && void tried(keep('settings', [{ id: '', value }])),
      { ...SETTLE, immediate: true },
    )
    watchDebounced(
      () => (pours.openLoaded ? worthKeeping.value : undefined),
      (records) => records && void keepPours(),
      { ...SETTLE, immediate: true },
    )
    watchDebounced(
      () =>
        pours.openLoaded ? pours.open.flatMap(({ record }) => forecasts.keptOf(record.id) ?? []) : undefined,
      (kept) => {
        // None yet is not none any more.
        if (kept && (kept.length > 0 || pours.open.length === 0)) void tried(keep(FORECASTS, asRows(kept)))
      },
      { ...SETTLE, immediate: true },
    )
  }

  /** The last casts, whole; with what was kept of them before. */
  async function fetchLast(): Promise<boolean> {
    const [casts, lines] = await Promise.all([
      callApi<{ items: PourAnswer[] }>('/api/pours/last'),
      callApi<CastPage>('/api/pours', { query: { limit: LAST_CASTS } }),
    ])
    if (casts.ok) pours.put(...casts.value.items)
    if (lines.ok) await keepCasts(lines.value.items).catch(() => undefined)
    return casts.ok && lines.ok
  }

  /** By itself, when what is here has become old and nothing presses. */
  function fetchOld(): void {
    if (!isReal || clock.nowMs() - fetched.value.atMs < OLD_MS) return
    const idle = globalThis.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 2000))
    idle(() => void fetchQuietly())
  }
  async function fetchQuietly(): Promise<void> {
    if (!(await fetchLast())) return
    fetched.value = { ...fetched.value, atMs: Math.round(clock.nowMs()) }
  }

  // A device that is let in no more keeps nothing of the workshop but what it has recorded itself.
  watch(lostPlace, (lost) => {
    if (lost !== 'sign_in' || !isLetIn) return
    void copies().then((held) => held?.clear().catch(() => undefined))
    if ('caches' in globalThis) void caches.delete(PICTURES_CACHE)
  })

  /** Answers that were kept longest ago make room. */
  async function prune(): Promise<void> {
    const held = await copies()
    const answers = (await held?.all(ANSWERS)) ?? []
    const old = answers.sort((a, b) => b.atMs - a.atMs).slice(MOST_ANSWERS)
    if (old.length > 0) await held?.write([], old)
  }

  return { asOfMs, fetched, worthKeeping, readForecasts, readIn, follow, fetchLast, fetchOld, keepPours }
})
