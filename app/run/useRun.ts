import { SETTING_WORDS, weighKnockWords } from './words'
import { useWakeLock } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { keyOfStep, stageOf, viewPour, type EventBody } from '#core/pour'
import { useNow } from '~/stores/bench'
import { usePour } from '~/parts/pour/usePour'
import { useBenchButtons, type Press, type Pressed } from './knock/useBenchButtons'
import { useBowlScale } from './weigh/useBowlScale'
import { say } from '~/parts/show/speech'
import { usePreferences } from '~/parts/show/usePreferences'
import { timeLeftToSay } from './timeLeft'
import { useKnock } from './knock/useKnock'
import { useNoiseKnock } from './knock/useNoiseKnock'
import { useWeighing } from './weigh/useWeighing'
import { usePours } from '~/stores/pours'
import { advanceBody, isWeighStep, poolModeOf } from './knock/advance'
import { cautionsOf } from '~/parts/show/cautions'
import { stepWords } from '~/parts/words/steps'

/** One pour's live run: what it shows, and what a knock, an undo or a tool does to it. For one page at a time. */
export function useRun(id: string) {
  const pours = usePours()
  const now = useNow()

  const { record, facts, unreadable, failure } = usePour(id)
  const view = computed(() => facts.value && viewPour(facts.value, now.value))
  const step = computed(() => view.value?.step)
  const mode = computed(() => (view.value ? poolModeOf(step.value, view.value.stage) : 'ended'))
  const words = computed(() => {
    if (mode.value === 'wait') return { ...SETTING_WORDS, action: '' }
    const next = facts.value?.next
    return next && facts.value ? stepWords(next, facts.value.plan) : undefined
  })
  const cautions = computed(() =>
    step.value && facts.value ? cautionsOf(step.value, facts.value.plan, mode.value === 'demould') : [],
  )

  const scale = useBowlScale(id, () => facts.value?.batch)
  const weighing = useWeighing(
    () => record.value,
    () => facts.value,
    scale,
  )

  /** Two windows may look at different revisions of a plan: what was weighed for another one is asked about. */
  const stale = computed(() => {
    const events = facts.value?.stale ?? []
    const revision = events[0]?.planRevision
    if (!record.value || revision === undefined) return undefined
    const mine = events.filter((e) => e.planRevision === revision)
    return {
      revision,
      events: mine,
      plan: record.value.earlierPlans.find((p) => p.revision === revision)?.plan,
    }
  })
  function keepStale() {
    if (stale.value) put({ type: 'plan_holds', revision: stale.value.revision })
  }
  function dropStale() {
    if (stale.value) put(...stale.value.events.map((e) => ({ type: 'void' as const, targetId: e.id })))
  }

  const said = ref('')
  /** The pour may turn out not to be there any more while the page is open: then nothing is recorded. */
  function put(...bodies: EventBody[]) {
    if (record.value) pours.record(id, ...bodies)
  }
  /** What a knock comes to as things stand. @param press of a button on the bench; undefined for a key, a touch or an elbow. */
  function decide(press?: Press): Pressed {
    const nothing = { knownBy: undefined, act: () => {} }
    // A question stands where the target is: a knock is no answer to it.
    if (stale.value) return nothing
    if (!facts.value?.next || (mode.value !== 'knock' && mode.value !== 'demould')) return nothing
    const weighed = isWeighStep(step.value) ? weighing.knock() : undefined
    const knownBy = weighed?.by
    if (weighed?.does === 'wait') return { ...nothing, knownBy }
    const at = keyOfStep(facts.value.next)
    const once = (act: () => void) => ({
      knownBy,
      // Another window may have acted on it meanwhile.
      act: () => facts.value?.next && keyOfStep(facts.value.next) === at && act(),
    })
    if (weighed?.does === 'zero')
      return once(() => {
        scale.zero(press?.id)
        said.value = 'Zeroed.'
      })
    const body = advanceBody(step.value, facts.value, weighed?.massG ?? 0, weighed?.from)
    if (!body) return nothing
    const done = words.value?.action
    return once(() => {
      if (press) void pours.recordPress(id, press, press.by, body)
      else put(body)
      said.value = `${done}. Next: ${words.value?.title ?? 'finished'}.`
    })
  }
  function undo() {
    said.value = pours.undo(id)
      ? `Taken back. Now: ${words.value?.title ?? ''}.`
      : 'There is nothing to take back.'
  }
  const knock = useKnock(() => decide().act(), undo)
  const buttons = useBenchButtons(id, decide)
  /**
   * A noise may be anybody's: it never says that powder may move or was weighed, nor that the piece is out. Those want a
   * hand, an elbow or a button.
   */
  const mayBeNoise = computed(
    () => mode.value === 'knock' && step.value !== 'check_air' && !isWeighStep(step.value),
  )
  const noise = useNoiseKnock(() => {
    if (mayBeNoise.value) knock()
  })
  const { sound } = usePreferences()
  watch([now, () => view.value?.clock], ([nowMs, clock], [beforeMs, before]) => {
    // Another clock begins anew.
    if (!clock || clock.id !== before?.id || clock.startMs !== before.startMs) return
    const left = timeLeftToSay(clock, beforeMs, nowMs)
    if (left && sound.value) say(left)
  })
  const wakeLock = useWakeLock()
  watch(
    mode,
    (m) =>
      m === 'knock' || m === 'wait' || m === 'demould'
        ? wakeLock.request('screen').catch(() => {})
        : wakeLock.release(),
    { immediate: true },
  )
  /** What the large target says: with a scale, what a knock would do now. */
  const action = computed(() => {
    const usual = words.value?.action ?? ''
    if (!isWeighStep(step.value)) return usual
    if (weighing.isSilent.value) return 'Type what it shows'
    return weighing.phase.value ? weighKnockWords(weighing.phase.value, usual) : usual
  })
  const planOpen = computed(
    () =>
      facts.value?.next !== undefined &&
      ['mould', 'weigh'].includes(stageOf(facts.value.next)) &&
      !facts.value.live.some((e) => e.body.type === 'weighed'),
  )
  return reactive({
    record,
    facts,
    view,
    step,
    mode,
    words,
    action,
    cautions,
    planOpen,
    weighing,
    scale,
    buttons,
    noise,
    mayBeNoise,
    said,
    sound,
    failure,
    now,
    unreadable,
    put,
    knock,
    undo,
    stale,
    keepStale,
    dropStale,
  })
}
