import { computed, ref } from 'vue'
import { usePours } from '~/stores/pours'
import { ERROR_WORDS } from '~/parts/words/errors'

/** One pour by its id, fetched; `failure` says why it cannot be had. */
export function usePour(id: string) {
  const pours = usePours()
  const failure = ref('')
  const record = computed(() => pours.records.get(id))
  const facts = computed(() => record.value && pours.factsOf(record.value))
  /** The record as it lies in the database, where it cannot be read. */
  const unreadable = computed(() => pours.unreadable.get(id))
  void pours
    .load(id)
    .then((failed) => (failure.value = failed && !record.value ? ERROR_WORDS[failed.code] : ''))
  return { record, facts, unreadable, failure }
}
