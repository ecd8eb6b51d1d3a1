import { computed, ref, watch } from 'vue'
import { viewPour, type Clock as PourClock } from '#core/pour'
import { usePours } from '~/stores/pours'
import { CLOCK_WORDS } from '~/parts/words/pour'
import { useNow } from '~/stores/clock'
import { beep, say } from '~/parts/show/speech'
import { usePreferences } from '~/parts/show/usePreferences'

/** Something that has fallen due while this window was open. */
export interface Due {
  /** Of one clock of one pour: rings once. */
  key: string
  pourId: string
  piece: string
  what: string
}

const keyOf = (pourId: string, clock: PourClock) => `${pourId} ${clock.id} ${clock.startMs}`

/**
 * Rings and says what falls due, with which pour it is, wherever in the application one is. For the application's shell,
 * once. `due` is what has rung and still stands.
 */
export function useDueBell() {
  const pours = usePours()
  const now = useNow()
  const { sound } = usePreferences()
  const dismissed = ref(new Set<string>())
  /** Clocks that were seen running: only those ring, not what was long due when the window was opened. */
  const running = new Set<string>()
  const rang = ref(new Set<string>())

  const clocks = computed(() =>
    pours.open.flatMap(({ record, facts }) => {
      const { clock } = viewPour(facts, now.value)
      if (!clock) return []
      const key = keyOf(record.id, clock)
      const what = CLOCK_WORDS[clock.id]
      return [{ key, pourId: record.id, piece: record.plan.piece, what, isDue: now.value >= clock.dueMs }]
    }),
  )
  watch(clocks, (all) => {
    for (const { key, piece, what, isDue } of all) {
      if (!isDue) running.add(key)
      else if (running.delete(key)) {
        rang.value = new Set([...rang.value, key])
        if (!sound.value) continue
        beep()
        say(`${piece}: ${what}`)
      }
    }
  })
  const due = computed<Due[]>(() =>
    clocks.value.filter((c) => c.isDue && rang.value.has(c.key) && !dismissed.value.has(c.key)),
  )
  function dismiss(key: string) {
    dismissed.value = new Set([...dismissed.value, key])
  }
  return { due, dismiss }
}
