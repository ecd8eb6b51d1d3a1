import pLimit from 'p-limit'
import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { PourRecord } from '~~/shared/records'
import { useClock } from './bench'
import { copies } from './copies'
import { PICTURES_CACHE } from './copyBox'
import { useDeviceCopy } from './deviceCopy'
import { usePours } from './pours'
import { useWorkshop } from './workshop'

/** Pictures at a time: the bench's own requests go between them. */
const pictures = pLimit(3)

/** One thing that a day away asks for: how many of it there are here, of how many. */
export interface Ready {
  what: 'cards' | 'open' | 'casts' | 'pictures'
  here: number
  of: number
}

/** What a day away asks for, counted and fetched: for who is about to leave. */
export const useAway = defineStore('away', () => {
  const workshop = useWorkshop()
  const pours = usePours()
  const copy = useDeviceCopy()
  const clock = useClock()
  const fetching = ref(false)
  const ready = shallowRef<Ready[]>([])

  /** Pictures that a day away asks for: every mould's as they are shown on the shelf, a print's also as it is measured. */
  function picturesWanted(): string[] {
    const ofMoulds = workshop.moulds.flatMap((m) =>
      m.photos.flatMap(({ id }) => [
        `/api/photos/${id}?size=thumb`,
        ...(m.purpose === 'print' ? [`/api/photos/${id}?size=full`] : []),
      ]),
    )
    const ofCasts = copy.worthKeeping.flatMap((record) =>
      record.events.flatMap(({ body }) =>
        body.type === 'photographed' ? [`/api/photos/${body.photoId}?size=thumb`] : [],
      ),
    )
    return [...new Set([...ofMoulds, ...ofCasts])]
  }
  async function picturesHere(): Promise<ReadonlySet<string>> {
    if (!('caches' in globalThis)) return new Set()
    const cache = await caches.open(PICTURES_CACHE)
    return new Set(
      (await cache.keys()).map((r) => new URL(r.url)).map(({ pathname, search }) => pathname + search),
    )
  }

  /** Counts what is here of what a day away asks for. */
  async function check(): Promise<void> {
    const held = await copies()
    if (!held) return
    const counts = await Promise.all(
      workshop.listNames.map(async (name) => ({
        here: (await held.all(name)).length,
        of: workshop.cardsOf(name).length,
      })),
    )
    const copied = new Set((await held.all<PourRecord>('pour')).map((c) => c.id))
    const [open, ended] = [
      copy.worthKeeping.filter(pours.isOpen),
      copy.worthKeeping.filter((r) => !pours.isOpen(r)),
    ]
    const wanted = picturesWanted()
    const pictured = await picturesHere()
    const hereOf = (records: PourRecord[]) => records.filter((r) => copied.has(r.id)).length
    ready.value = [
      {
        what: 'cards',
        here: counts.reduce((sum, c) => sum + Math.min(c.here, c.of), 0),
        of: counts.reduce((sum, c) => sum + c.of, 0),
      },
      { what: 'open', here: hereOf(open), of: open.length },
      { what: 'casts', here: hereOf(ended), of: ended.length },
      { what: 'pictures', here: wanted.filter((url) => pictured.has(url)).length, of: wanted.length },
    ]
  }

  /** Everything for a day away, now. @returns whether all of it is here. */
  async function fetchAll(): Promise<boolean> {
    fetching.value = true
    try {
      const isWhole = await copy.fetchLast()
      const had = await picturesHere()
      const missing = picturesWanted().filter((url) => !had.has(url))
      // Through the service worker, which keeps them.
      const came = await Promise.all(
        missing.map((url) =>
          pictures(() =>
            fetch(url).then(
              (a) => a.ok,
              () => false,
            ),
          ),
        ),
      )
      const gone = came.filter((ok) => !ok).length
      await copy.keepPours()
      await check()
      if (isWhole) copy.fetched = { atMs: Math.round(clock.nowMs()), missing: gone }
      return isWhole && gone === 0
    } finally {
      fetching.value = false
    }
  }
  return { fetching, ready, check, fetchAll }
})
