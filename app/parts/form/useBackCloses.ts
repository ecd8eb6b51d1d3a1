import { useEventListener } from '@vueuse/core'
import { watch, type Ref } from 'vue'

/** Marks the place in the history that stands for an open sheet. */
const MARK = 'nineRipplesSheet'

/**
 * The browser's own Back closes what is open instead of leaving the page: while it is open a place in the history stands
 * for it, which goes again however it is closed.
 */
export function useBackCloses(open: Ref<boolean>): void {
  const standsForIt = () => Boolean((history.state as Record<string, unknown> | null)?.[MARK])
  watch(open, (now) => {
    if (now) history.pushState({ ...(history.state as object), [MARK]: true }, '')
    else if (standsForIt()) history.back()
  })
  useEventListener('popstate', () => {
    if (open.value && !standsForIt()) open.value = false
  })
}
