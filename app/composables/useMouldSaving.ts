import { ref } from 'vue'
import { useWorkshop } from '~/stores/workshop'
import { mouldInputOf, type MouldDraft } from '~/utils/mouldDraft'
import { failureWords } from '~/utils/words'

/** Keeps a described mould, and says why when it cannot be. What was typed stays either way. */
export function useMouldSaving(id: string) {
  const workshop = useWorkshop()
  const failure = ref('')
  const busy = ref(false)

  /** @param seenRevision what the caster saw of it; undefined for a new mould. @returns whether it is kept. */
  async function save(draft: MouldDraft, seenRevision: number | undefined): Promise<boolean> {
    busy.value = true
    failure.value = ''
    const answer = await workshop.saveMould(id, mouldInputOf(draft), seenRevision)
    busy.value = false
    if (answer.ok) return true
    failure.value = failureWords(answer.failure)
    if (answer.failure.code === 'stale_mould') await workshop.loadMoulds()
    return false
  }

  return { failure, busy, save }
}
