import { computed, ref, watch } from 'vue'
import { viewPour, type Clock as PourClock } from '#core/pour'
import { usePours } from '~/stores/pours'
import { CUE_QUESTIONS } from '~/parts/words/cues'
import { CLOCK_WORDS, LATE_WORDS } from '~/parts/words/pour'
import { useNow } from '~/stores/bench'
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

/** Rings for the piece even where another clock is the one that matters. */
const RINGS_ASIDE: PourClock['id'][] = ['soft_window', 'look']
/** Not heard the first time: said once more, with what can still be done. */
const LATE_MS = 30_000

const keyOf = (pourId: string, clock: PourClock) => `${pourId} ${clock.id}${clock.cue ?? ''} ${clock.startMs}`

/**
 * Rings and says what falls due, with which pour it is, wherever in the application one is. For the application's shell,
 * once. `due` is what has rung and still stands.
 */
export function useDueBell() {
  const pours = usePours()
  const now = useNow()
  const openedMs = now.value
  const { sound } = usePreferences()
  const dismissed = ref(new Set<string>())
  /** Clocks that were seen running: only those ring, not what was long due when the window was opened. */
  const running = new Set<string>()
  const rang = ref(new Set<string>())
  const saidLate = new Set<string>()

  const dueOf = (pourId: string, piece: string, clock: PourClock) => ({
    key: keyOf(pourId, clock),
    pourId,
    piece,
    what: clock.cue ? CUE_QUESTIONS[clock.cue] : CLOCK_WORDS[clock.id],
    late: LATE_WORDS[clock.id],
    isDue: now.value >= clock.dueMs,
    /** It began after this window was opened, and did not ring before it was due: a short one between two looks. */
    isNew: clock.startMs >= openedMs && clock.dueMs > clock.startMs,
    isLate: now.value >= clock.dueMs + LATE_MS,
  })
  const clocks = computed(() =>
    pours.open.flatMap(({ record, facts }) => {
      const { clock, otherClocks } = viewPour(facts, now.value)
      const ringing = [clock, ...otherClocks.filter((c) => RINGS_ASIDE.includes(c.id))]
      return ringing.flatMap((c) => (c ? [dueOf(record.id, record.plan.piece, c)] : []))
    }),
  )
  watch(clocks, (all) => {
    for (const { key, piece, what, late, isDue, isLate, isNew } of all) {
      if (!isDue) running.add(key)
      else if (running.delete(key) || (isNew && !rang.value.has(key))) {
        rang.value = new Set([...rang.value, key])
        if (!sound.value) continue
        beep()
        say(`${piece}: ${what}`)
      } else if (isLate && rang.value.has(key) && !saidLate.has(key)) {
        saidLate.add(key)
        if (sound.value) say(`${piece}: late. ${late}`)
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
