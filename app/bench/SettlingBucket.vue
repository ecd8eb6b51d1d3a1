<script setup lang="ts">
/** The settling bucket: what was done with it last, and what is next. Usage: <SettlingBucket :now-ms /> */
import { newId } from '~~/shared/newId'
import { computed, ref } from 'vue'
import { SETTLING_ACTS, settlingNext, type SettlingAct } from '#core/stock'
import { momentText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { SETTLING_NEXT_WORDS, SETTLING_WORDS } from './words'

const props = defineProps<{ nowMs: number }>()
const workshop = useWorkshop()
const pours = usePours()
const failure = ref('')

const last = computed(() => workshop.settling[0])
const next = computed(() => settlingNext(workshop.settling))
const isDue = computed(() => next.value.fromMs !== undefined && props.nowMs >= next.value.fromMs)

async function tell(what: SettlingAct) {
  const answer = await workshop.tellSettling({
    id: newId(),
    what,
    atMs: Math.round(props.nowMs),
    who: pours.who,
  })
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}
async function takeBack() {
  if (!last.value) return
  const answer = await workshop.dropSettling(last.value.id)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}
</script>

<template>
  <section class="bucket" aria-labelledby="settling-title">
    <h2 id="settling-title">Settling bucket</h2>
    <p :class="{ due: isDue }">
      <template v-if="last"
        >{{ SETTLING_WORDS[last.what] }} {{ momentText(last.atMs, nowMs)
        }}{{ last.who ? `, ${last.who}` : '' }}.
      </template>
      <b>{{ SETTLING_NEXT_WORDS[next.act] }}</b>
      <template v-if="next.fromMs !== undefined && !isDue">
        from {{ momentText(next.fromMs, nowMs) }}</template
      >.
    </p>
    <p class="acts">
      <button v-for="act in SETTLING_ACTS" :key="act" type="button" @click="tell(act)">
        {{ SETTLING_WORDS[act] }}
      </button>
      <button v-if="last" type="button" class="plain" @click="takeBack">Take the last back</button>
    </p>
    <p v-if="failure" role="alert">{{ failure }}</p>
  </section>
</template>

<style scoped>
.bucket {
  display: grid;
  gap: var(--s2);
  padding: var(--s4) var(--s3);
}
h2 {
  font-size: 1.1rem;
}
.due {
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
button {
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid var(--line);
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}
.plain {
  border-color: transparent;
  text-decoration: underline;
}
</style>
