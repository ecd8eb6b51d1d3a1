import { shallowRef } from 'vue'
import type { ApiFailure } from '~/stores/api'

/** What is there now, where somebody else was quicker: to be laid beside what was typed. */
export function useConflict<Card extends { revision: number }>() {
  const theirs = shallowRef<Card>()
  return {
    theirs,
    /** @returns whether this failure is such a conflict. */
    meets(failure: ApiFailure): boolean {
      theirs.value =
        failure.code === 'stale_card' || failure.code === 'card_id_conflict'
          ? (failure.current as Card | undefined)
          : undefined
      return theirs.value !== undefined
    },
    clear: () => (theirs.value = undefined),
  }
}
