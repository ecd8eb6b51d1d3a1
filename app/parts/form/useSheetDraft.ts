import { watch, type Ref } from 'vue'

/**
 * Fills a sheet's fields when it opens about another thing than the last time. What was typed about the same one stands,
 * however the sheet was closed, until it is kept.
 * @param about what it is about, told from all others; undefined where it is about nothing yet.
 */
export function useSheetDraft(open: Ref<boolean>, about: () => string | undefined, fill: () => void) {
  let filled: string | undefined
  watch(open, (now) => {
    const of = about()
    if (!now || of === undefined || of === filled) return
    filled = of
    fill()
  })
  return {
    /** It is kept, or thrown away: the next time it opens anew. */
    settled() {
      filled = undefined
    },
  }
}
