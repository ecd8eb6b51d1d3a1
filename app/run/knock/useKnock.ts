import { useEventListener } from '@vueuse/core'
import { elapsedMs } from '~/stores/clock'
import { usePreferences } from '~/parts/show/usePreferences'

/** Keys that belong to the browser or to moving about, and never advance. */
const NOT_A_KNOCK =
  /^(Tab|Shift|Control|Alt|AltGraph|Meta|CapsLock|Escape|Arrow.*|Page.*|Home|End|F\d+|ContextMenu)$/

/** A second knock sooner than this is the same elbow. */
const SAME_KNOCK_MS = 700

/**
 * Wet hands: any key advances, Backspace takes back, unless this device has it switched off. Keys held down, keys with a
 * modifier, and typing in a field, a dialog or on another control are left alone.
 * @returns a guarded advance for the pointer, which shares the rule against double knocks.
 */
export function useKnock(advance: () => void, undo: () => void): () => void {
  let lastMs = -Infinity
  const knock = () => {
    const nowMs = elapsedMs()
    if (nowMs - lastMs < SAME_KNOCK_MS) return
    lastMs = nowMs
    advance()
  }
  const { anyKey } = usePreferences()
  useEventListener('keydown', (event) => {
    if (!anyKey.value) return
    const target = event.target as HTMLElement
    const modified = event.ctrlKey || event.altKey || event.metaKey || event.shiftKey
    if (event.repeat || modified || NOT_A_KNOCK.test(event.key)) return
    if (target.closest('input, textarea, select, [role="combobox"], [role="menu"]')) return
    if (document.querySelector('[aria-modal="true"]')) return
    const control = target.closest('button, a, summary')
    if (control && !control.hasAttribute('data-pool') && (event.key === 'Enter' || event.key === ' ')) return
    event.preventDefault()
    if (event.key === 'Backspace') undo()
    else knock()
  })
  return knock
}
