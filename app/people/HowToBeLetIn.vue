<script setup lang="ts">
/** For a device that nobody let in: how that is done, by a code or by a password. Usage: <HowToBeLetIn /> */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref } from 'vue'
import { failureWords } from '~/parts/words/errors'
import { signIn } from '~/stores/account'
import { deviceWords } from './device'

const name = ref('')
const password = ref('')
const isAsking = ref(false)
const failure = ref('')
async function enter() {
  if (name.value.trim() === '' || password.value === '') return
  isAsking.value = true
  failure.value = ''
  const answer = await signIn({ name: name.value.trim(), password: password.value, device: deviceWords() })
  if (answer.ok) return
  isAsking.value = false
  failure.value = failureWords(answer.failure)
}
</script>

<template>
  <h1>This device is not let in yet</h1>
  <p>
    At the desk, open <b>Settings</b>, then <b>People and devices</b>, and have it show a code for you. Read
    the code with this device’s camera. Nothing is typed.
  </p>
  <form novalidate @submit.prevent="enter">
    <p class="soft">Or, if you have a password here:</p>
    <label class="field"
      ><span>Your name</span><InputText v-model="name" maxlength="60" autocomplete="username"
    /></label>
    <label class="field"
      ><span>Password</span
      ><InputText v-model="password" type="password" maxlength="200" autocomplete="current-password"
    /></label>
    <Button type="submit" label="Sign in" :disabled="isAsking || name.trim() === '' || password === ''" />
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--s3);
  width: min(20rem, 100%);
  text-align: left;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
</style>
