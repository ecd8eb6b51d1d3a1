<script setup lang="ts">
/**
 * What somebody recorded on a device that had been put out by the time that it came: line by line, taken as theirs or refused
 * as a whole. Usage: <HeldRecords v-for="of in people.held" :of />
 */
import Button from 'primevue/button'
import { ref } from 'vue'
import type { HeldByPerson } from '~~/shared/people'
import { counted } from '~/parts/show/counted'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { ERROR_WORDS, failureWords } from '~/parts/words/errors'
import { eventWords } from '~/parts/words/events'
import { useNowBy } from '~/stores/bench'
import { usePeople } from '~/stores/people'

const { of } = defineProps<{ of: HeldByPerson }>()
const people = usePeople()
const units = useUnits()
const now = useNowBy(60_000)
const said = ref('')

async function take() {
  const answer = await people.takeHeld(of.personId)
  if (!answer.ok) said.value = failureWords(answer.failure)
  else if (answer.value.left.length > 0)
    said.value = `${counted(answer.value.left.length, 'thing')} could not be taken: ${[
      ...new Set(answer.value.left.map(({ code }) => ERROR_WORDS[code])),
    ].join(' ')}`
}
async function refuse() {
  const answer = await people.refuseHeld(of.personId)
  if (!answer.ok) said.value = failureWords(answer.failure)
}
</script>

<template>
  <div class="held">
    <p>
      <b>{{ of.name }}</b> was put out, and this came from the {{ of.device.toLowerCase() }} since. It counts
      for nothing yet.
    </p>
    <ul>
      <li v-for="{ pourId, piece, event } in of.events" :key="event.id">
        <span class="when">{{ momentText(event.occurredAtMs + (event.shiftMs ?? 0), now) }}</span>
        <span>
          <NuxtLink v-if="piece" :to="`/pour/${pourId}`">{{ piece }}</NuxtLink>
          <template v-else>A pour that is not here</template>: {{ eventWords(event.body, units) }}
        </span>
      </li>
    </ul>
    <div class="acts">
      <Button type="button" :label="`Take it as ${of.name}’s`" @click="take" />
      <button type="button" class="ghost" @click="refuse">Refuse all of it</button>
    </div>
    <p v-if="said" class="failure" role="alert">{{ said }}</p>
  </div>
</template>

<style scoped>
.held {
  display: grid;
  gap: var(--s3);
  padding: var(--s3) 0;
  border-top: 1px solid var(--line);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 20rem;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: var(--s3);
  padding: var(--s1) 0;
}
.when {
  font-variant-numeric: tabular-nums;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
</style>
