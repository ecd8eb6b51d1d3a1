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
    /** Those of the fields whose names begin so; all of them where none is said. */
    clear(part = '') {
      for (const field of Object.keys(problems.value))
        if (field.startsWith(part)) delete problems.value[field]
    },
    none: computed(() => Object.keys(problems.value).length === 0),
  }
}
