<script setup lang="ts">
/** One person: the role, the devices, and the way out. Usage: <PersonLine :person can-pair @pair="…" /> */
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { DeviceOfPerson, PersonCard } from '~~/shared/people'
import type { Role } from '~~/shared/roles'
import { spanText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { useNowBy } from '~/stores/bench'
import { usePeople } from '~/stores/people'
import { ROLE_OPTIONS } from '~/parts/words/roles'

const { person } = defineProps<{ person: PersonCard; canPair: boolean }>()
defineEmits<{ pair: [] }>()
const people = usePeople()
const now = useNowBy(60_000)
const failure = ref('')

const role = computed({
  get: () => person.role,
  set: (next: Role) => void say(people.save(person.id, { name: person.name, role: next })),
})
async function say(asked: ReturnType<typeof people.putOut>) {
  const answer = await asked
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}
/** Asked for a name that their pours stand under. */
const asksName = ref(false)
/** Asked twice: it takes their devices off them. */
const asksOut = ref(false)

const FRESH_MS = 120_000
function seenWords({ seenMs, seenFrom }: DeviceOfPerson): string {
  const when = now.value - seenMs < FRESH_MS ? 'here now' : `last seen ${spanText(now.value - seenMs)} ago`
  return seenFrom ? `${when}, at ${seenFrom}` : when
}
</script>

<template>
  <li>
    <div class="who">
      <b>{{ person.name }}</b>
      <ChoicePills v-model="role" :label="`What ${person.name} may do`" :options="ROLE_OPTIONS" />
    </div>
    <ul v-if="person.devices.length > 0" class="devices">
      <li v-for="device in person.devices" :key="device.id">
        <span>{{ device.name }} <span class="soft">{{ seenWords(device) }}</span></span>
        <button
          type="button"
          class="icon-button"
          :aria-label="`Put ${person.name}’s ${device.name} out`"
          @click="say(people.putDeviceOut(person.id, device.id))"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </li>
    </ul>
    <p v-else class="soft none">On no device yet.</p>
    <EarlierNames v-model="asksName" :person />
    <div class="acts">
      <Button
        v-if="canPair"
        type="button"
        severity="secondary"
        label="Code for a device"
        :aria-label="`Code for a device of ${person.name}`"
        @click="$emit('pair')"
      />
      <button
        v-if="!asksName"
        type="button"
        class="ghost"
        :aria-label="`An earlier name of ${person.name}`"
        @click="asksName = true"
      >
        An earlier name
      </button>
      <button
        v-if="!asksOut"
        type="button"
        class="ghost"
        :aria-label="`Put out ${person.name}`"
        @click="asksOut = true"
      >
        Put out
      </button>
      <template v-else>
        <span>None of their devices is let in then. What they recorded stays.</span>
        <button type="button" class="ghost" @click="say(people.putOut(person.id))">Yes, out</button>
        <button type="button" class="ghost" @click="asksOut = false">No</button>
      </template>
    </div>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  </li>
</template>

<style scoped>
li {
  padding: var(--s3) 0;
  border-top: 1px solid var(--line);
}
.who,
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3);
}
.who b {
  flex: 1;
  font-size: 1.15rem;
}
.devices {
  list-style: none;
  margin: var(--s2) 0;
  padding: 0;
}
.devices li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding: 0 0 0 var(--s4);
  border: 0;
}
.none {
  margin: var(--s2) 0;
}
</style>
