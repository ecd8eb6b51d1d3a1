import { SETTING_WORDS } from './words'
import { useWakeLock } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import { stageOfStep, viewPour, type EventBody } from '#core/pour'
import { useNow } from '~/stores/clock'
import { usePour } from '~/parts/pour/usePour'
import { useKnock } from './useKnock'
import { usePours } from '~/stores/pours'
import { advanceBody, isWeighStep, massToWeighG, poolModeOf } from './advance'
import { cautionsOf } from '~/parts/show/cautions'
import { stepWords } from '~/parts/words/pour'

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
    return step.value && record.value ? stepWords(step.value, record.value.plan) : undefined
  })
  const cautions = computed(() =>
    step.value && facts.value ? cautionsOf(step.value, facts.value.plan, mode.value === 'demould') : [],
  )

  /** What is to be weighed now, g; undefined where nothing is. */
  const targetG = computed(() => facts.value && massToWeighG(step.value, facts.value))
  const massG = ref<number>()
  const massProblem = ref('')
  watch(
    [step, () => facts.value?.batch],
    () => {
      massG.value = targetG.value
      massProblem.value = ''
    },
    { immediate: true },
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
  function advance() {
    // A question stands where the target is: a knock is no answer to it.
    if (stale.value) return
    if (!facts.value || (mode.value !== 'knock' && mode.value !== 'demould')) return
    if (isWeighStep(step.value) && (massG.value === undefined || massProblem.value)) return
    const body = advanceBody(step.value, facts.value, massG.value ?? 0)
    if (!body) return
    const done = words.value?.action
    put(body)
    said.value = `${done}. Next: ${words.value?.title ?? 'finished'}.`
  }
  function undo() {
    said.value = pours.undo(id)
      ? `Taken back. Now: ${words.value?.title ?? ''}.`
      : 'There is nothing to take back.'
  }
  const knock = useKnock(advance, undo)
  const wakeLock = useWakeLock()
  watch(
    mode,
    (m) =>
      m === 'knock' || m === 'wait' || m === 'demould'
        ? wakeLock.request('screen').catch(() => {})
        : wakeLock.release(),
    { immediate: true },
  )
  const planOpen = computed(
    () =>
      step.value !== undefined &&
      ['mould', 'weigh'].includes(stageOfStep(step.value)) &&
      !facts.value?.live.some((e) => e.body.type === 'weighed'),
  )
  return reactive({
    record,
    facts,
    view,
    step,
    mode,
    words,
    cautions,
    planOpen,
    targetG,
    massG,
    massProblem,
    said,
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
