import { computed, reactive, ref, watch } from 'vue'
import { bowlFills, keyOfStep, stageOf, viewPour, type EventBody } from '#core/pour'
import { usePour } from '~/parts/pour/usePour'
import { cautionsOf } from '~/parts/show/cautions'
import { stepWords } from '~/parts/words/steps'
import { useNow } from '~/stores/bench'
import { elapsedMs } from '~/stores/clock'
import { usePours } from '~/stores/pours'
import { poolModeOf } from './knock/advance'
import { SETTING_WORDS } from './words'

/** A step that comes sooner than this after something was done comes of that. */
const OF_ONE_DEED_MS = 2000

/** One pour's live run: what it shows, and how something is recorded or taken back. For one page at a time. */
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
    if (!next || !facts.value) return undefined
    const { plan } = facts.value
    return stepWords(next, plan, bowlFills(plan, plan.kept.batches)?.[next.batch])
  })
  const cautions = computed(() =>
    step.value && facts.value ? cautionsOf(step.value, facts.value.plan, mode.value === 'demould') : [],
  )

  /** For who does not see it: what was done, and what comes now, once that stands. */
  const said = ref('')
  let done = { what: '', at: -Infinity }
  function say(what: string) {
    done = { what, at: elapsedMs() }
    said.value = `${what}.`
  }
  watch(
    () => facts.value?.next && keyOfStep(facts.value.next),
    () => {
      if (elapsedMs() - done.at < OF_ONE_DEED_MS)
        said.value = `${done.what}. Next: ${words.value?.title ?? 'finished'}.`
    },
  )
  /** The pour may turn out not to be there any more while the page is open: then nothing is recorded. */
  function put(...bodies: EventBody[]) {
    if (record.value) pours.record(id, ...bodies)
  }
  function putAt(...events: { atMs: number; body: EventBody }[]) {
    if (record.value) void pours.recordAt(id, events)
  }
  function undo() {
    say(pours.undo(id) ? 'Taken back' : 'There is nothing to take back')
  }
  const planOpen = computed(
    () =>
      facts.value?.next !== undefined &&
      ['mould', 'weigh'].includes(stageOf(facts.value.next)) &&
      !facts.value.live.some((e) => e.body.type === 'weighed'),
  )
  return reactive({
    id,
    record,
    facts,
    view,
    step,
    mode,
    words,
    cautions,
    planOpen,
    said,
    failure,
    now,
    unreadable,
    say,
    put,
    putAt,
    undo,
  })
}
export type Run = ReturnType<typeof useRun>

/** A run whose pour is there and can be read: what every screen of it takes. */
export type StandingRun = Run & { [K in 'record' | 'facts' | 'view']: NonNullable<Run[K]> }
export function standingOf(run: Run): StandingRun | undefined {
  return run.record && run.facts && run.view ? (run as StandingRun) : undefined
}
