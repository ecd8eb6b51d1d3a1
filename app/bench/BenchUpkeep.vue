<script setup lang="ts">
/** Pieces in use that want something now: told, and done with one press. Usage: <BenchUpkeep :now-ms /> */
import { computed, ref, watch } from 'vue'
import { dayText } from '~/parts/show/time'
import { UPKEEP_WORDS } from '~/parts/words/upkeep'
import { usePours } from '~/stores/pours'
import { useUpkeep } from '~/stores/upkeep'
import type { UpkeepLine } from '~~/shared/upkeep'

const props = defineProps<{ nowMs: number }>()
const upkeep = useUpkeep()
const pours = usePours()

/** Told of here, and not back from the workshop yet. */
const told = ref(new Set<string>())
const keyOf = ({ pourId, act, fromMs }: UpkeepLine) => `${pourId} ${act} ${fromMs}`
const due = computed(() => upkeep.lines.filter((l) => l.fromMs <= props.nowMs && !told.value.has(keyOf(l))))
// What the workshop says now counts: an act may have been refused, or taken back.
watch(
  () => upkeep.lines,
  () => (told.value = new Set()),
)
function did(line: UpkeepLine) {
  told.value = new Set([...told.value, keyOf(line)])
  void pours.record(line.pourId, { type: 'kept_up', what: line.act })
}
</script>

<template>
  <section v-if="due.length > 0" class="upkeep" aria-labelledby="upkeep-title">
    <h2 id="upkeep-title">In use</h2>
    <ul>
      <li v-for="line in due" :key="line.pourId">
        <span>
          <NuxtLink :to="`/casts/${line.pourId}`">{{ line.piece }}</NuxtLink>
          <b>{{ UPKEEP_WORDS[line.act].wants }}</b>
          <small>since {{ dayText(line.fromMs, nowMs) }}</small>
        </span>
        <button type="button" :aria-label="`${UPKEEP_WORDS[line.act].did}: ${line.piece}`" @click="did(line)">
          {{ UPKEEP_WORDS[line.act].did }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.upkeep {
  display: grid;
  gap: var(--s2);
  padding: var(--s4) var(--s3) 0;
}
h2 {
  font-size: 1.1rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s2);
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
span {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s3);
  align-items: baseline;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
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
</style>
