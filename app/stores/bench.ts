import { useIntervalFn } from '@vueuse/core'
import { computed, effectScope, inject, readonly, ref, type InjectionKey, type Ref } from 'vue'
import { elapsedMs, type Clock } from './clock'

/**
 * The bench that this window stands at, handed in to stores and components: whose time it is, and whether what is
 * recorded is real. Decided once, when the window is opened.
 */
export interface Bench {
  clock: Clock
  /** Nothing that happens at another one is ever kept or sent. */
  isReal: boolean
  /** How many times faster than in the workshop. */
  speed: number
  /** The present, ms, ticking four times a second so that every clock on screen turns over together. */
  now: () => Readonly<Ref<number>>
}

/** Remembered for as long as the window is open: a reload must not turn a rehearsal into the real thing. */
export const REHEARSAL_PLACE = 'nine-ripples.rehearsal'

export const BENCH: InjectionKey<Bench> = Symbol('bench')

const TICK_MS = 250

export function benchOf(clock: Clock, { isReal, speed }: Pick<Bench, 'isReal' | 'speed'>): Bench {
  const present = ref(clock.nowMs())
  let ticking = false
  return {
    clock,
    isReal,
    speed,
    now() {
      if (!ticking) {
        ticking = true
        // Outlives the view that happened to ask first: the others' clocks hang on it too.
        effectScope(true).run(() =>
          useIntervalFn(() => (present.value = clock.nowMs()), TICK_MS, { immediateCallback: true }),
        )
      }
      return readonly(present)
    },
  }
}

/** From the present on, so many times as fast; real time goes by as it does. */
export function hurriedClock(clock: Clock, speed: number): Clock {
  const [startMs, begunMs] = [clock.nowMs(), elapsedMs()]
  return { nowMs: () => startMs + speed * (elapsedMs() - begunMs) }
}

export function useBench(): Bench {
  const bench = inject(BENCH)
  if (!bench) throw new Error('no bench was handed in')
  return bench
}

export const useClock = (): Clock => useBench().clock
export const useNow = (): Readonly<Ref<number>> => useBench().now()
/** The same in steps, for what is told by the second or the minute: nothing is drawn anew in between. */
export function useNowBy(stepMs: number): Readonly<Ref<number>> {
  const now = useNow()
  return computed(() => Math.floor(now.value / stepMs) * stepMs)
}
