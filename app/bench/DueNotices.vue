<script setup lang="ts">
/** What has fallen due, wherever one is; the run that is open says its own. Usage: <DueNotices /> once, in the shell. */
import { X } from '@lucide/vue'
import { computed } from 'vue'
import { useDueBell } from './useDueBell'

const route = useRoute()
const { due, dismiss } = useDueBell()
const elsewhere = computed(() => due.value.filter((d) => route.path !== `/pour/${d.pourId}`))
</script>

<template>
  <div v-if="elsewhere.length > 0" role="alert">
    <ul class="due">
      <li v-for="d in elsewhere" :key="d.key">
        <NuxtLink :to="`/pour/${d.pourId}`"><b>{{ d.piece }}</b> {{ d.what }}: now</NuxtLink>
        <button
          type="button"
          class="icon-button"
          :aria-label="`Put away: ${d.piece}`"
          @click="dismiss(d.key)"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.due {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
  padding: 0 var(--s5);
  background: var(--warm-light);
  border-bottom: 2px solid var(--warm);
  color: var(--ink);
}
a {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--s3);
  align-items: center;
  min-height: 44px;
  font-size: 1.15rem;
}
.icon-button {
  flex: none;
}
@media (max-width: 43rem) {
  li {
    padding: 0 var(--s1) 0 var(--s4);
  }
  a {
    font-size: 1rem;
    line-height: 1.15;
    align-content: center;
  }
}
</style>
