<script setup lang="ts">
/** A password of one's own, for where there is nobody to show a code. Usage: <MyPassword :name :fallback @kept="…" /> */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { LEAST_PASSWORD } from '~~/shared/roles'
import { failureWords } from '~/parts/words/errors'
import type { ApiFailure } from '~/stores/api'
import { savePassword } from '~/stores/account'

const { name: known, fallback } = defineProps<{
  /** What one signs in by; null: by codes alone. */
  name: string | null
  fallback: string
}>()
const emit = defineEmits<{ kept: [] }>()

const name = ref(known ?? fallback)
const before = ref('')
const password = ref('')
const said = ref('')
const failure = ref('')
const valid = computed(
  () =>
    name.value.trim() !== '' &&
    password.value.length >= LEAST_PASSWORD &&
    (known === null || before.value !== ''),
)
const FIELD_WORDS: Record<string, string> = {
  name: 'This name',
  password: 'This password',
  before: 'The password you say you have',
}
function words(failed: ApiFailure): string {
  const [field] = failed.fields
  return field ? `${FIELD_WORDS[field.path] ?? 'It'} ${field.message}.` : failureWords(failed)
}
async function keep() {
  if (!valid.value) return
  const answer = await savePassword({
    name: name.value.trim(),
    password: password.value,
    ...(known === null ? {} : { before: before.value }),
  })
  failure.value = answer.ok ? '' : words(answer.failure)
  said.value = answer.ok ? 'Kept.' : ''
  if (!answer.ok) return
  before.value = password.value = ''
  emit('kept')
}
</script>

<template>
  <details class="fold">
    <summary>
      {{ known === null ? 'A password of your own' : `You sign in as ${known}` }}
    </summary>
    <form novalidate @submit.prevent="keep">
      <label class="field"
        ><span>Sign in as</span><InputText v-model="name" maxlength="60" autocomplete="username"
      /></label>
      <label v-if="known !== null" class="field"
        ><span>The password you have</span
        ><InputText v-model="before" type="password" maxlength="200" autocomplete="current-password"
      /></label>
      <label class="field"
        ><span>{{ known === null ? 'Password' : 'The new one' }}</span
        ><InputText v-model="password" type="password" maxlength="200" autocomplete="new-password" />
        <small class="soft"
          >{{ LEAST_PASSWORD }} characters or more; three words that do not belong together are good.</small
        ></label
      >
      <Button type="submit" label="Keep it" severity="secondary" :disabled="!valid" />
      <p role="status">{{ said }}</p>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    </form>
  </details>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--s3);
  justify-items: start;
  margin-top: var(--s3);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  width: min(22rem, 100%);
}
</style>
