import { createGlobalState, useLocalStorage } from '@vueuse/core'

export const LOOKS = ['workshop', 'glare', 'dim'] as const
export type Look = (typeof LOOKS)[number]

/** How this device behaves at the bench; kept in the browser. */
export const usePreferences = createGlobalState(() => ({
  /** What falls due rings and is said. */
  sound: useLocalStorage('nine-ripples.sound', true),
  /** In the live run any key goes on; else only the large target does. */
  anyKey: useLocalStorage('nine-ripples.any-key', true),
  /** A loud noise is a knock; the level that counts as one, 0–1. */
  noiseKnock: useLocalStorage('nine-ripples.noise-knock', false),
  noiseLevel: useLocalStorage('nine-ripples.noise-level', 0.6),
  /** For the light one works in. */
  look: useLocalStorage<Look>('nine-ripples.look', 'workshop'),
}))
