import { computed, ref } from 'vue'

/** What cannot be read yet in a form's fields, by field. `none` is when the form may be kept. */
export function useProblems() {
  const problems = ref<Record<string, string>>({})
  return {
    fields: computed(() => Object.keys(problems.value)),
    note(field: string, message: string) {
      if (message) problems.value[field] = message
      else delete problems.value[field]
    },
    clear() {
      problems.value = {}
    },
    none: computed(() => Object.keys(problems.value).length === 0),
  }
}
