<script setup lang="ts">
/** The workshops of this server: which this window is in, the others, another one. Usage: <WorkshopsHere /> */
import { newId } from '~~/shared/newId'
import Button from 'primevue/button'
import { computed, onMounted, ref } from 'vue'
import { HOME } from '~~/shared/place'
import type { WorkshopHere } from '~~/shared/workshops'
import { failureWords } from '~/parts/words/errors'
import { enterWorkshop, isAtHome, workshopHere } from '~/stores/place'
import { beginWorkshop, isLookingRound, listWorkshops } from '~/stores/workshopsHere'
import { useWorkshop } from '~/stores/workshop'

const workshop = useWorkshop()
const all = ref<WorkshopHere[]>([])
const failure = ref('')
onMounted(async () => {
  const answer = await listWorkshops()
  if (answer.ok) all.value = answer.value
  else failure.value = failureWords(answer.failure)
})
const isThisOne = ({ id, isHome }: WorkshopHere) => (isAtHome ? isHome : id === workshopHere)
const others = computed(() => all.value.filter((w) => !isThisOne(w) && !w.isDemo))

const anotherId = newId()
const isMaking = ref(false)
async function another() {
  isMaking.value = true
  const made = await beginWorkshop(anotherId)
  if (made.ok) return
  isMaking.value = false
  failure.value = failureWords(made.failure)
}
</script>

<template>
  <p>
    You are in <b>{{ workshop.settings.workshopName }}</b>. Each workshop has its own shelf, pours and
    settings, and sees nothing of the others.
  </p>
  <ul v-if="others.length > 0" class="others">
    <li v-for="other in others" :key="other.id">
      <b>{{ other.name }}</b>
      <Button
        type="button"
        severity="secondary"
        :label="`Go into ${other.name}`"
        @click="enterWorkshop(other.isHome ? HOME : other.id)"
      />
    </li>
  </ul>
  <div class="acts">
    <LookRound v-if="!isLookingRound()" />
    <Button
      type="button"
      severity="secondary"
      :disabled="isMaking"
      label="Another workshop, empty"
      @click="another"
    />
  </div>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
.others {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
.others li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s4);
}
</style>
