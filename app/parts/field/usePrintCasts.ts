import { computed, onMounted } from 'vue'
import type { CastPage, PourRecord } from '~~/shared/records'
import { callKept } from '~/stores/copies'
import { usePours } from '~/stores/pours'
import { photosOfPour } from './casts'

/** Of one print there are seldom more; what is older stands in the log. */
const MOST_SHOWN = 6

/** Fetches the last casts of a print, where they are not known here yet. */
export async function loadCastsOf(mouldId: string): Promise<void> {
  const pours = usePours()
  const answer = await callKept<CastPage>('/api/pours', { tags: `mould:${mouldId}`, limit: MOST_SHOWN })
  const missing = answer.ok ? answer.value.items.filter(({ id }) => !pours.records.has(id)) : []
  await Promise.all(missing.map(({ id }) => pours.load(id)))
}

/** Those of them that are known here, newest first. */
export function castsOfPrint(mouldId: string): PourRecord[] {
  return [...usePours().records.values()]
    .filter((record) => record.plan.mould.members?.some((m) => m.mouldId === mouldId))
    .sort((a, b) => b.createdAtMs - a.createdAtMs)
    .slice(0, MOST_SHOWN)
}

/** The casts that were poured of a print, newest first, with their photographs; what this device has of them out of reach. */
export function usePrintCasts(mouldId: string) {
  const pours = usePours()
  onMounted(() => loadCastsOf(mouldId))
  return computed(() =>
    castsOfPrint(mouldId).map((record) => ({ record, photos: photosOfPour(pours.factsOf(record)) })),
  )
}
