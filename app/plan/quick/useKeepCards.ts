import { newId } from '~~/shared/newId'
import { nextTick, ref, type Ref } from 'vue'
import { failureWords } from '~/parts/words/errors'
import type { ApiResult } from '~/stores/api'
import { useWorkshop } from '~/stores/workshop'
import { bagInputOfQuick, cardsOf, mouldKept, plasterKept, type QuickAnswers } from './answers'

/** Puts on the shelf what the answers say of a mould, a plaster and its bag. */
export function useKeepCards(answers: Ref<QuickAnswers>) {
  const workshop = useWorkshop()
  const keepFailure = ref('')

  /** What was said of a mould and a bag goes on the shelf first: the pour names them. */
  async function keepCards(): Promise<boolean> {
    keepFailure.value = ''
    const { mould, plaster, bag } = cardsOf(answers.value)
    const { ids } = answers.value
    const failed = (answer: ApiResult<unknown>) => {
      if (!answer.ok) keepFailure.value = failureWords(answer.failure)
      return !answer.ok
    }
    if (mould) {
      if (failed(await workshop.saveMould(ids.mould, null, mould))) return false
      answers.value = mouldKept(answers.value, newId())
    }
    if (plaster) {
      const { id, revision: _, ...input } = plaster
      if (failed(await workshop.savePlaster(id, null, input))) return false
      const bagFailed = bag && failed(await workshop.saveBag(ids.bag, null, bagInputOfQuick(answers.value)))
      const next = { plaster: newId(), bag: newId() }
      answers.value = plasterKept(answers.value, bagFailed ? {} : { bag }, next)
      if (bagFailed) return false
    }
    await nextTick()
    return true
  }

  return { keepCards, keepFailure }
}
