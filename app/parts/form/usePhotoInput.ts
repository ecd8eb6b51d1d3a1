import { ref } from 'vue'
import { ERROR_WORDS } from '~/parts/words/errors'
import type { ApiResult } from '~/stores/api'

/** Photographs chosen in a file input, taken one after the other; the last that was not taken is said by its name. */
export function usePhotoInput(take: (file: File) => Promise<ApiResult<unknown>>) {
  const busy = ref(false)
  const problem = ref('')

  async function pick(event: Event) {
    const input = event.target as HTMLInputElement
    const files = [...(input.files ?? [])]
    input.value = ''
    problem.value = ''
    busy.value = true
    for (const file of files) {
      const answer = await take(file)
      if (!answer.ok) problem.value = `${file.name}: ${ERROR_WORDS[answer.failure.code]}`
    }
    busy.value = false
  }

  return { busy, problem, pick }
}
