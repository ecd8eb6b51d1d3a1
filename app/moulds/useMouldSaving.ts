import { ref, type Ref } from 'vue'
import { mouldLines } from '~/parts/form/cardLines'
import { useConflict } from '~/parts/form/useConflict'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { mouldDraftOf, mouldInputOf, type MouldDraft } from '~/parts/mould/mouldDraft'
import { failureWords } from '~/parts/words/errors'
import type { MouldCard, MouldInput } from '~~/shared/moulds'

/**
 * Keeps a described mould, and says why when it cannot be. What was typed stays either way.
 * @param seen revision that the caster saw of it; null for a new mould.
 * @param kept once it is on the shelf, before its page is shown.
 */
export function useMouldSaving(
  id: string,
  draft: Ref<MouldDraft | undefined>,
  seen: Ref<number | null>,
  kept: () => void = () => {},
) {
  const router = useRouter()
  const workshop = useWorkshop()
  const units = useUnits()
  const failure = ref('')
  const busy = ref(false)
  const { theirs, meets, clear, keepMine, takeTheirs } = useConflict<MouldCard>({
    seen,
    keep,
    show: (card) => (draft.value = mouldDraftOf(card)),
  })

  /** Once it is kept, its own page says so. */
  async function keep(): Promise<void> {
    if (!draft.value) return
    busy.value = true
    failure.value = ''
    clear()
    const answer = await workshop.saveMould(id, seen.value, mouldInputOf(draft.value))
    busy.value = false
    if (answer.ok) {
      kept()
      await router.push(`/moulds/${id}`)
    } else if (!meets(answer.failure)) failure.value = failureWords(answer.failure)
  }

  /** As a conflict is laid out. */
  const lines = (mould: MouldInput) =>
    mouldLines(mould, units, (of) => workshop.plasters.find((p) => p.id === of)?.name ?? '?')

  return { failure, busy, keep, theirs, keepMine, takeTheirs, lines }
}
