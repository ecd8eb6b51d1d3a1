import { createGlobalState, useLocalStorage } from '@vueuse/core'

/** How this device behaves at the bench; kept in the browser. */
export const usePreferences = createGlobalState(() => ({
  /** What falls due rings and is said. */
  sound: useLocalStorage('nine-ripples.sound', true),
  /** In the live run any key goes on; else only the large target does. */
  anyKey: useLocalStorage('nine-ripples.any-key', true),
}))
