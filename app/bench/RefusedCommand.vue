<script setup lang="ts">
/**
 * A card, a pour or a plan that the workshop would not take as it was put down here: what, when, why, and what can be done.
 * Usage: <RefusedCommand :row :now-ms />
 */
import Button from 'primevue/button'
import { computed } from 'vue'
import { useCommands } from '~/stores/commands'
import type { RefusedCommand } from '~/stores/commandBox'
import { momentText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { commandWords } from './words'

const props = defineProps<{ row: RefusedCommand; nowMs: number }>()
const commands = useCommands()

/** What is there now has a revision of its own: mine put over it names that one. */
const revisionThere = computed(() => (props.row.current as { revision?: number } | undefined)?.revision)
const isOvertaken = computed(
  () => ['stale_card', 'stale_plan'].includes(props.row.code) && revisionThere.value !== undefined,
)
function putMine() {
  const body = { ...props.row.body, revision: revisionThere.value }
  void commands.sendAgain({ ...props.row, body })
}
</script>

<template>
  <section class="slab refused">
    <div>
      <h2>{{ commandWords(row) }}</h2>
      <p class="soft">{{ momentText(row.atMs, nowMs) }}</p>
      <p class="why">{{ failureWords(row) }}</p>
    </div>
    <div class="acts">
      <Button v-if="isOvertaken" label="Put mine in its place" @click="putMine" />
      <Button v-else label="Send again" @click="commands.sendAgain(row)" />
      <Button
        severity="secondary"
        :label="isOvertaken ? 'Leave theirs' : 'Throw away'"
        @click="commands.forget(row.id)"
      />
    </div>
  </section>
</template>

<style scoped>
.refused {
  display: grid;
  gap: var(--s3);
}
.why {
  color: var(--hot);
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
</style>
