<script setup lang="ts">
/** Who works here, what each may do, on which devices they are let in, and the code for another. Usage: <PeopleRoom /> */
import { newId as makeId } from '~~/shared/newId'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { onMounted, ref } from 'vue'
import type { PersonCard } from '~~/shared/people'
import { ROLES, type Role } from '~~/shared/roles'
import { failureWords } from '~/parts/words/errors'
import { may } from '~/stores/me'
import { usePeople } from '~/stores/people'
import { ROLE_OPTIONS, ROLE_WORDS, mayWords } from '~/parts/words/roles'

const people = usePeople()
const loaded = ref(false)
const failure = ref('')
onMounted(async () => {
  if (!may('keep')) return
  const failed = await people.load()
  loaded.value = !failed
  failure.value = failed ? failureWords(failed) : ''
})

const name = ref('')
const role = ref<Role>('caster')
/** Kept until it is in: sent twice it is one person. */
const newId = ref(makeId())
/** Whose code is shown. */
const pairing = ref<PersonCard>()
const isPairing = ref(false)
function pair(person: PersonCard) {
  pairing.value = person
  isPairing.value = true
}

async function add() {
  if (name.value.trim() === '') return
  const answer = await people.add(newId.value, { name: name.value.trim(), role: role.value })
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  if (!answer.ok) return
  newId.value = makeId()
  name.value = ''
  if (people.address) pair(answer.value)
}
</script>

<template>
  <div class="page">
    <h1>People and devices</h1>
    <p v-if="!may('keep')" class="soft">Whoever keeps the workshop says who is let in, and where.</p>
    <template v-else>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <p v-if="loaded && people.address" class="shared">
        Other devices reach this workshop at <b>{{ people.address }}</b>. Each is let in once, by a code.
        <NuxtLink to="/trust">How a phone learns to trust it</NuxtLink>
      </p>
      <p v-else-if="loaded" class="shared">
        Only this machine reaches the workshop. To let phones and tablets of the studio’s network in, stop it
        and start it with <code>./bin/start --share</code>.
      </p>
      <section v-if="people.held.length > 0" class="slab" aria-labelledby="p-held">
        <h2 id="p-held">Recorded after they were put out</h2>
        <HeldRecords v-for="of in people.held" :key="of.personId" :of />
      </section>
      <section v-if="loaded" class="slab" aria-labelledby="p-people">
        <h2 id="p-people">Who works here</h2>
        <ul v-if="people.cards.length > 0">
          <PersonLine
            v-for="person in people.cards"
            :key="person.id"
            :person="person"
            :can-pair="people.address !== null"
            @pair="pair(person)"
          />
        </ul>
        <p v-else class="soft">
          Nobody yet. Whoever sits at this machine may do everything; others are let in by name.
        </p>
        <form class="fields" novalidate @submit.prevent="add">
          <label class="field"
            ><span>Somebody else</span
            ><InputText v-model="name" maxlength="60" placeholder="their name" autocomplete="off"
          /></label>
          <LabelledPills v-model="role" label="As" :options="ROLE_OPTIONS" />
          <Button type="submit" severity="secondary" label="Add" :disabled="name.trim() === ''" />
        </form>
      </section>
      <NetworkDevices />
      <section class="slab" aria-labelledby="p-roles">
        <h2 id="p-roles">What each may do</h2>
        <dl>
          <template v-for="r in ROLES" :key="r">
            <dt>{{ ROLE_WORDS[r] }}</dt>
            <dd>{{ mayWords(r) }}</dd>
          </template>
        </dl>
      </section>
      <PairingCode v-if="pairing" :key="pairing.id" v-model="isPairing" :person="pairing" />
    </template>
  </div>
</template>

<style scoped>
.page {
  max-width: 56rem;
}
.slab {
  display: grid;
  gap: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: var(--s2) var(--s4);
  margin: 0;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
</style>
