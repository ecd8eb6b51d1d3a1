import { shallowRef, type Ref } from 'vue'
import type { ApiFailure } from '~/stores/api'

/**
 * What is there now, where somebody else was quicker: to be laid beside what was typed.
 * @param editor the revision it shows; how it keeps what is typed; how it shows a card instead.
 */
export function useConflict<Card extends { revision: number }>(editor: {
  seen: Ref<number | null>
  keep: () => unknown
  show: (card: Card) => void
}) {
  const theirs = shallowRef<Card>()
  const clear = () => (theirs.value = undefined)
  return {
    theirs,
    clear,
    /** @returns whether this failure is such a conflict. */
    meets(failure: ApiFailure): boolean {
      theirs.value =
        failure.code === 'stale_card' || failure.code === 'card_id_conflict'
          ? (failure.current as Card | undefined)
          : undefined
      return theirs.value !== undefined
    },
    keepMine(): void {
      editor.seen.value = theirs.value!.revision
      clear()
      void editor.keep()
    },
    takeTheirs(): void {
      const card = theirs.value!
      editor.show(card)
      editor.seen.value = card.revision
      clear()
    },
  }
}
