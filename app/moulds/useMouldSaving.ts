import { ref } from 'vue'
import { useConflict } from '~/parts/form/useConflict'
import { useWorkshop } from '~/stores/workshop'
import { mouldInputOf, type MouldDraft } from '~/parts/mould/mouldDraft'
import { failureWords } from '~/parts/words/errors'
import type { MouldCard } from '~~/shared/moulds'

/** Keeps a described mould, and says why when it cannot be. What was typed stays either way. */
export function useMouldSaving(id: string) {
  const workshop = useWorkshop()
  const failure = ref('')
  const busy = ref(false)
  const { theirs, meets, clear } = useConflict<MouldCard>()

  /** @param seenRevision what the caster saw of it; null for a new mould. @returns whether it is kept. */
  async function save(draft: MouldDraft, seenRevision: number | null): Promise<boolean> {
    busy.value = true
    failure.value = ''
    clear()
    const answer = await workshop.saveMould(id, seenRevision, mouldInputOf(draft))
    busy.value = false
    if (answer.ok) return true
    if (!meets(answer.failure)) failure.value = failureWords(answer.failure)
    return false
  }

  return { failure, busy, save, theirs, clearConflict: clear }
}
