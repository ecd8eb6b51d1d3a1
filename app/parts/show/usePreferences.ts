import { createGlobalState } from '@vueuse/core'
import { useKeptByDevice } from '~/stores/kept'

export const LOOKS = ['workshop', 'glare', 'dim'] as const
export type Look = (typeof LOOKS)[number]

/** How this device behaves at the bench; kept in the browser. */
export const usePreferences = createGlobalState(() => ({
  /** What falls due rings and is said. */
  sound: useKeptByDevice('nine-ripples.sound', true),
  /** In the live run any key goes on; else only the large target does. */
  anyKey: useKeptByDevice('nine-ripples.any-key', true),
  /** A loud noise is a knock; the level that counts as one, 0–1. */
  noiseKnock: useKeptByDevice('nine-ripples.noise-knock', false),
  noiseLevel: useKeptByDevice('nine-ripples.noise-level', 0.6),
  /** For the light one works in. */
  look: useKeptByDevice<Look>('nine-ripples.look', 'workshop'),
}))
