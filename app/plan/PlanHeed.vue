<script setup lang="ts">
/** What went wrong with an earlier one: kept in mind by this plan, and said at its step. Usage: <PlanHeed v-model="draft.heed" /> */
import { X } from '@lucide/vue'
import type { CauseId } from '#core/finish'
import { HEED_AT } from '#core/pour'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { STAGE_WORDS } from '~/parts/words/pour'

const heed = defineModel<CauseId[]>({ required: true })
</script>

<template>
  <section class="slab" aria-labelledby="heed-title">
    <h2 id="heed-title">From last time</h2>
    <ul>
      <li v-for="cause in heed" :key="cause">
        <span>
          <b>{{ CAUSE_WORDS[cause].name }}.</b> {{ CAUSE_WORDS[cause].next }}
          <span class="soft">Said again at: {{ STAGE_WORDS[HEED_AT[cause]] }}.</span>
        </span>
        <button
          type="button"
          :aria-label="`No longer: ${CAUSE_WORDS[cause].name}`"
          @click="heed = heed.filter((c) => c !== cause)"
        >
          <X :size="20" />
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: var(--s2) 0 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: var(--s3);
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
button {
  width: 44px;
  height: 44px;
  border: 0;
  background: transparent;
  color: inherit;
  cursor: pointer;
}
</style>
