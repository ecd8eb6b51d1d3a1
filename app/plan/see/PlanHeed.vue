<script setup lang="ts">
/**
 * What went wrong with an earlier one: set in this plan, and said at its step; what stays with a mould, a recipe or a bag does
 * so until it is mended. Usage: <PlanHeed :causes="draft.heed" :lines @leave-out="…" @mend="…" />
 */
import Button from 'primevue/button'
import { computed } from 'vue'
import type { CauseId } from '#core/finish'
import { HEED_AT } from '#core/pour'
import { dayText } from '~/parts/show/time'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { STAGE_WORDS } from '~/parts/words/pour'
import { useClock } from '~/stores/bench'
import type { HeedLine } from '~~/shared/heeds'
import { keptWithWords } from '~/parts/words/heeds'

const props = defineProps<{
  causes: readonly CauseId[]
  /** Those of them that stay with something of this plan. */
  lines: readonly HeedLine[]
}>()
const emit = defineEmits<{ leaveOut: [cause: CauseId]; mend: [cause: CauseId] }>()

const nowMs = useClock().nowMs()
const rows = computed(() =>
  props.causes.map((cause) => ({ cause, kept: props.lines.find((l) => l.cause === cause) })),
)
</script>

<template>
  <section class="slab" aria-labelledby="heed-title">
    <h2 id="heed-title">From last time</h2>
    <ul>
      <li v-for="{ cause, kept } in rows" :key="cause" :data-heed="cause">
        <p>
          <b>{{ CAUSE_WORDS[cause].name }}.</b> {{ CAUSE_WORDS[cause].next }}
          <span class="soft">
            Said again at: {{ STAGE_WORDS[HEED_AT[cause]] }}.
            <template v-if="kept">
              Kept with {{ keptWithWords(kept.subject) }} since
              <NuxtLink :to="`/casts/${kept.pourId}`">{{ kept.piece }}</NuxtLink>,
              {{ dayText(kept.atMs, nowMs) }}.
            </template>
          </span>
        </p>
        <div class="act">
          <Button
            type="button"
            severity="secondary"
            label="Not this time"
            :aria-label="`Not this time: ${CAUSE_WORDS[cause].name}`"
            @click="emit('leaveOut', cause)"
          />
          <Button
            v-if="kept"
            type="button"
            severity="secondary"
            label="It is mended"
            :aria-label="`It is mended: ${CAUSE_WORDS[cause].name}`"
            @click="emit('mend', cause)"
          />
        </div>
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
  gap: var(--s3);
}
li {
  display: grid;
  gap: var(--s2);
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
</style>
