<script setup lang="ts">
import { useKeptByDevice } from '~/stores/kept'
import Button from 'primevue/button'
import { useUnits } from '~/parts/show/useUnits'
import { CAUTIONS } from '~/parts/show/cautions'

const units = useUnits()

const read = useKeptByDevice('nine-ripples.caution-read', false)
/** Where the caster was going when the caution came first. */
const then = useState('after-caution', () => '/')

async function accept() {
  read.value = true
  await navigateTo(then.value)
}
</script>

<template>
  <div class="page">
    <p class="soft">Before you pour</p>
    <h1>Plaster burns, sets under water, and its dust stays in the lungs.</h1>
    <ul class="cautions">
      <li class="first">
        <h2>{{ CAUTIONS.body.title }}</h2>
        <p>{{ CAUTIONS.body.text(units.temp) }}</p>
        <p>
          A hand in a bucket of setting plaster cannot be pulled out, and the inside can pass
          {{ units.temp(60) }}. People have lost fingers. This holds whatever any forecast here says.
        </p>
      </li>
      <li v-for="id in ['dust', 'silica', 'skin', 'drain', 'airway', 'kiln'] as const" :key="id">
        <h2>{{ CAUTIONS[id].title }}</h2>
        <p>{{ CAUTIONS[id].text(units.temp) }}</p>
      </li>
    </ul>
    <p>
      The maker’s safety data sheet and your local rules come first, always. Children work with an adult
      beside them; dental and medical work is for those licensed to do it.
    </p>
    <Button class="go" :label="read ? 'Back to work' : 'I have read this'" @click="accept" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: var(--s4);
  justify-items: start;
}
h1 {
  max-width: 20ch;
  font-size: clamp(1.9rem, 5vw, 3rem);
}
.cautions {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s4) var(--s6);
  grid-template-columns: repeat(auto-fit, minmax(min(19rem, 100%), 1fr));
}
.cautions li {
  border-top: 4px solid var(--ink);
  padding-top: var(--s2);
}
.cautions .first {
  border-color: var(--hot);
}
.cautions p + p {
  margin-top: var(--s2);
}
.go {
  font-size: 1.15rem;
}
</style>
