<script setup lang="ts">
/** The code by which one device is let in, for as long as it holds. Usage: <PairingCode v-model="open" :person /> */
import { computed, ref, watch } from 'vue'
import type { Pairing, PersonCard } from '~~/shared/people'
import { qrPath } from '~/parts/show/qr'
import { spanText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { useNowBy } from '~/stores/bench'
import { usePeople } from '~/stores/people'
import { ROLE_WORDS } from '~/parts/words/roles'

const { person } = defineProps<{ person: PersonCard }>()
const open = defineModel<boolean>({ required: true })
const people = usePeople()
const now = useNowBy(1000)
const pairing = ref<Pairing>()
const failure = ref('')

const devicesNow = () => people.cards.find((p) => p.id === person.id)?.devices ?? []
/** Devices that were here before this code: one more, and it has been read. */
const before = ref(new Set<string>())

/** Sent to somebody instead of shown. */
const link = ref('')
const isCopied = ref(false)
async function ask() {
  link.value = ''
  before.value = new Set(devicesNow().map((d) => d.id))
  const answer = await people.pairingFor(person.id, 'device')
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  pairing.value = answer.ok ? answer.value : undefined
}
/** It takes the place of the code. */
async function askLink() {
  pairing.value = undefined
  isCopied.value = false
  const answer = await people.pairingFor(person.id, 'invitation')
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  if (answer.ok) link.value = `${people.address}/pair#${answer.value.token}`
}
/** Without https there is no such thing: then it is copied by hand. */
const canCopy = 'clipboard' in navigator
async function copy() {
  await navigator.clipboard.writeText(link.value)
  isCopied.value = true
}
watch(open, (now) => now && void ask(), { immediate: true })

const leftMs = computed(() => (pairing.value ? pairing.value.expiresAtMs - now.value : 0))
const code = computed(() => pairing.value && qrPath(`${people.address}/pair#${pairing.value.token}`))

const letIn = computed(() => devicesNow().find((d) => !before.value.has(d.id)))
watch(letIn, (device) => device && (pairing.value = undefined))
</script>

<template>
  <SheetDialog v-model="open" :title="`A device for ${person.name}`">
    <p v-if="letIn" role="status" class="done">
      {{ letIn.name }} is let in: {{ person.name }}, {{ ROLE_WORDS[person.role].toLowerCase() }}.
    </p>
    <template v-else-if="code && leftMs > 0">
      <svg
        :viewBox="`0 0 ${code.size} ${code.size}`"
        role="img"
        :aria-label="`Code for ${person.name}’s device`"
      >
        <rect :width="code.size" :height="code.size" fill="#fff" />
        <path :d="code.path" fill="#000" />
      </svg>
      <p>
        Read it with the camera of the device. It lets in one, as <b>{{ person.name }}</b>,
        {{ ROLE_WORDS[person.role].toLowerCase() }}.
      </p>
      <p class="soft">Good for {{ spanText(leftMs) }}.</p>
      <button type="button" class="ghost" @click="askLink">Send a link instead</button>
    </template>
    <template v-else-if="link">
      <p>
        Send this to {{ person.name }}, and to nobody else: whoever opens it first is let in. It is good once,
        for three days, in the studio’s network.
      </p>
      <code class="link">{{ link }}</code>
      <button v-if="canCopy" type="button" class="ghost" @click="copy">
        {{ isCopied ? 'Copied' : 'Copy it' }}
      </button>
    </template>
    <template v-else-if="pairing">
      <p role="status">This code has run out.</p>
      <button type="button" class="main-button" @click="ask">Another code</button>
    </template>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  </SheetDialog>
</template>

<style scoped>
svg {
  display: block;
  width: min(20rem, 70vw);
  margin: 0 auto var(--s3);
}
.link {
  overflow-wrap: anywhere;
}
.done {
  font-size: 1.2rem;
  font-weight: 600;
}
</style>
