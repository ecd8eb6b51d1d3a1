import { useTimeoutFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue'
import type { PrintForm } from '#core/field'
import type { Find } from '~~/shared/finds'
import type { MouldCard, MouldInput } from '~~/shared/moulds'
import { failureWords } from '~/parts/words/errors'
import { mouldDraftOf, mouldInputOf } from '~/parts/mould/mouldDraft'
import { useWorkshop } from '~/stores/workshop'
import { remeasured, wayOf } from '~/parts/field/derive'

/** What is marked is kept when the hand rests, ms: nobody out there looks for a button. */
const REST_MS = 700

/**
 * A print as it is being documented: what is said and marked shows at once and is kept by itself, out of reach of the
 * workshop as well; where somebody else was quicker both are shown.
 */
export function usePrint(id: string) {
  const workshop = useWorkshop()
  const card = computed(() => workshop.moulds.find((m) => m.id === id))
  const typed = shallowRef<MouldInput>()
  const print = computed<MouldInput | undefined>(
    () => typed.value ?? (card.value && mouldInputOf(mouldDraftOf(card.value))),
  )
  const find = computed(() => print.value?.find ?? undefined)
  const way = computed(() => print.value && wayOf(print.value))
  const failure = ref('')
  const theirs = shallowRef<MouldCard>()
  /** What was typed goes on from this revision, whatever came in since. */
  let base: number | undefined

  let saving: Promise<void> | undefined
  async function save(): Promise<void> {
    const now = typed.value
    if (!now || base === undefined || theirs.value) return
    const answer = await workshop.saveMould(id, base, now)
    if (answer.ok) {
      failure.value = ''
      base = answer.value.revision
      if (typed.value === now) typed.value = undefined
      return
    }
    const { code, current } = answer.failure
    if (code === 'stale_card' && current) theirs.value = current as MouldCard
    else failure.value = failureWords(answer.failure)
  }
  function flush(): Promise<void> {
    rest.stop()
    saving = (saving ?? Promise.resolve()).then(() => save())
    return saving
  }
  const rest = useTimeoutFn(() => void flush(), REST_MS, { immediate: false })
  onBeforeUnmount(() => void flush())

  function put(next: MouldInput) {
    if (!typed.value) base = card.value?.revision
    typed.value = next
    rest.start()
  }
  /** Something of where it was found, or marked on its photographs: its volume follows. */
  function change(said: Partial<Find>, form?: PrintForm) {
    if (print.value && find.value) put(remeasured(print.value, { ...find.value, ...said }, form))
  }
  const rename = (name: string) => name.trim() !== '' && print.value && put({ ...print.value, name })

  function keepMine() {
    const now = theirs.value
    theirs.value = undefined
    base = now?.revision
    void flush()
  }
  function takeTheirs() {
    theirs.value = undefined
    typed.value = undefined
  }

  return { card, print, find, way, failure, theirs, change, rename, flush, keepMine, takeTheirs }
}
