import { computed, reactive } from 'vue'
import { asksWhatFollows, bodyOfStep, keyOfStep } from '#core/pour'
import { usePours } from '~/stores/pours'
import type { Run } from '../useRun'
import { useBowlScale } from '../weigh/useBowlScale'
import { useWeighing } from '../weigh/useWeighing'
import { weighKnockWords } from '../words'
import { isWeighStep } from './advance'
import { useBenchButtons, type Press, type Pressed } from './useBenchButtons'
import { useKnock } from './useKnock'
import { useNoiseKnock } from './useNoiseKnock'

/** What a knock does, whoever or whatever knocks: a touch, a key, an elbow on a button, a bang on the bench. */
export function useKnocking(run: Run) {
  const pours = usePours()
  const scale = useBowlScale(run.id, () => run.facts?.batch)
  const weighing = useWeighing(
    () => run.record && { ...run.record, events: pours.eventsOf(run.record) },
    () => run.facts,
    scale,
  )

  /** What is weighed to the water is to be said first. */
  const asks = computed(
    () =>
      run.facts && isWeighStep(run.step) && run.step !== 'weigh_water' && asksWhatFollows(run.facts.inHand),
  )
  /** What a knock comes to as things stand. @param press of a button on the bench; undefined for a key, a touch or an elbow. */
  function decide(press?: Press): Pressed {
    const nothing = { knownBy: undefined, act: () => {} }
    if (!run.facts?.next || run.mode !== 'knock') return nothing
    // A question stands where the target is: a knock is no answer to it.
    if (asks.value) return nothing
    const weighed = isWeighStep(run.step) ? weighing.knock() : undefined
    const knownBy = weighed?.by
    if (weighed?.does === 'wait') return { ...nothing, knownBy }
    const at = keyOfStep(run.facts.next)
    const once = (act: () => void) => ({
      knownBy,
      // Another window may have acted on it meanwhile.
      act: () => run.facts?.next && keyOfStep(run.facts.next) === at && act(),
    })
    if (weighed?.does === 'zero')
      return once(() => {
        scale.zero(press?.id)
        run.said = 'Zeroed.'
      })
    const { next, plan } = run.facts
    const body = bodyOfStep(next, {
      stirManner: plan.stirManner,
      massG: weighed?.massG ?? 0,
      ...weighed?.from,
    })
    if (!body) return nothing
    const done = run.words?.action ?? ''
    return once(() => {
      run.say(done)
      if (press) void pours.recordPress(run.id, press, press.by, body)
      else run.put(body)
    })
  }
  const knock = useKnock(() => decide().act(), run.undo)
  const buttons = useBenchButtons(run.id, decide)
  /**
   * A noise may be anybody's: it never says that powder may move or was weighed. Those want a hand, an elbow or a button.
   */
  const mayBeNoise = computed(
    () => run.mode === 'knock' && run.step !== 'check_air' && !isWeighStep(run.step),
  )
  const noise = useNoiseKnock(() => {
    if (mayBeNoise.value) knock()
  })
  /** What the large target says: with a scale, what a knock would do now. */
  const action = computed(() => {
    const usual = run.words?.action ?? ''
    if (!isWeighStep(run.step)) return usual
    if (weighing.isSilent.value) return 'Type what it shows'
    return weighing.phase.value ? weighKnockWords(weighing.phase.value, usual) : usual
  })
  return reactive({ weighing, scale, buttons, noise, mayBeNoise, action, asks, knock })
}
export type Knocking = ReturnType<typeof useKnocking>
