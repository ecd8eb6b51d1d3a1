<script setup lang="ts">
/**
 * Names that a person's pours stand under from before they were let in: how those hands sift counts as theirs.
 * Usage: <EarlierNames v-model="asks" :person />, open for another name while `asks`.
 */
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, useId } from 'vue'
import { handOfName } from '#core/pour'
import type { PersonCard } from '~~/shared/people'
import { failureWords } from '~/parts/words/errors'
import { usePeople } from '~/stores/people'

const { person } = defineProps<{ person: PersonCard }>()
const people = usePeople()
const listId = useId()
const failure = ref('')
const isOpen = defineModel<boolean>({ required: true })
const typed = ref('')

const loose = computed(() => {
  const given = new Set(people.cards.flatMap((p) => p.names.map(handOfName)))
  return people.looseNames.filter((name) => !given.has(name))
})
/** Known by the very name that they were let in under. */
const isNamesake = computed(() => loose.value.includes(handOfName(person.name)))

async function keep(names: readonly string[]) {
  const answer = await people.giveNames(person.id, names)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  return answer.ok
}
async function give(name: string) {
  if (name.trim() === '' || !(await keep([...person.names, name.trim()]))) return
  typed.value = ''
  isOpen.value = false
}
const take = (name: string) => void keep(person.names.filter((n) => n !== name))
</script>

<template>
  <div class="names">
    <p v-if="isNamesake">
      Pours from before stand under “{{ person.name }}”. Was that {{ person.name }}?
      <button type="button" class="ghost" @click="give(person.name)">Yes, count them as theirs</button>
    </p>
    <ul v-if="person.names.length > 0" :aria-label="`Earlier names of ${person.name}`">
      <li v-for="name in person.names" :key="name">
        <span>Earlier recorded as “{{ name }}”</span>
        <button
          type="button"
          class="icon-button"
          :aria-label="`${name} was not ${person.name}`"
          @click="take(name)"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </li>
    </ul>
    <form v-if="isOpen" novalidate @submit.prevent="give(typed)">
      <label class="field"
        ><span>Earlier recorded as</span>
        <InputText v-model="typed" maxlength="60" autocomplete="off" :list="listId" />
      </label>
      <datalist :id="listId"><option v-for="name in loose" :key="name" :value="name" /></datalist>
      <Button type="submit" severity="secondary" label="Give" :disabled="typed.trim() === ''" />
      <button type="button" class="ghost" @click="isOpen = false">Never mind</button>
      <small class="soft">Their pours keep that name; how they sift counts as {{ person.name }}’s.</small>
    </form>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: var(--s2) 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  padding-left: var(--s4);
}
form {
  margin: var(--s2) 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
small {
  flex: 1 0 100%;
}
</style>
