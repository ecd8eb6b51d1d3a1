<script setup lang="ts">
/** What is done to the piece, each while it can be: ticked as it is done. Usage: <RunFinish :facts :tasks :now-ms @record /> */
import { computed } from 'vue'
import type { EventBody, FinishWindow, PourOutlook } from '#core/pour'
import { dayText, momentText } from '~/parts/show/time'
import { TASK_WORDS } from '~/parts/words/finish'
import { MS_PER } from '#core/units'

const props = defineProps<{ facts: PourOutlook; tasks: readonly FinishWindow[]; nowMs: number }>()
const emit = defineEmits<{ record: [body: EventBody] }>()

const at = (ms: number) =>
  Math.abs(ms - props.nowMs) < 2 * MS_PER.day ? momentText(ms, props.nowMs) : dayText(ms, props.nowMs)
const rows = computed(() =>
  props.tasks.map((t) => {
    const closed = t.untilMs !== undefined && t.untilMs < props.nowMs
    const open = t.fromMs <= props.nowMs && !closed
    const when = t.done
      ? 'done'
      : closed
        ? 'too dry by now: wet it first'
        : open
          ? t.untilMs === undefined
            ? 'now'
            : `now, until about ${at(t.untilMs)}`
          : `from about ${at(t.fromMs)}`
    return { ...t, open, closed, when }
  }),
)
function toggle(task: FinishWindow) {
  const ticks = props.facts.live.filter(({ body }) => body.type === 'finish_done' && body.task === task.task)
  if (ticks.length === 0) emit('record', { type: 'finish_done', task: task.task })
  else for (const { id: targetId } of ticks) emit('record', { type: 'void', targetId })
}
</script>

<template>
  <section class="finish" aria-labelledby="finish-title">
    <h2 id="finish-title">Finishing</h2>
    <ul>
      <li v-for="row in rows" :key="row.task" :class="{ open: row.open, done: row.done }">
        <button type="button" role="checkbox" :aria-checked="row.done" @click="toggle(row)">
          <span class="box" aria-hidden="true">{{ row.done ? '✓' : '' }}</span>
          <span><b>{{ TASK_WORDS[row.task].name }}</b> <span class="when">{{ row.when }}</span></span>
        </button>
        <p v-if="row.open && !row.done" class="how">
          With {{ TASK_WORDS[row.task].gear }}. {{ TASK_WORDS[row.task].spoils }}
        </p>
      </li>
    </ul>
    <CautionNote v-if="rows.some((r) => r.task === 'sand_dry' && r.open && !r.done)" id="sanding" />
  </section>
</template>

<style scoped>
.finish {
  display: grid;
  gap: var(--s2);
}
h2 {
  font-size: 1.15rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-bottom: 1px solid color-mix(in srgb, currentColor 22%, transparent);
}
li:not(.open) {
  opacity: 0.78;
}
button {
  display: grid;
  grid-template-columns: 1.9rem 1fr;
  gap: var(--s2);
  align-items: center;
  width: 100%;
  min-height: 44px;
  text-align: left;
  background: transparent;
  border: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.box {
  display: grid;
  place-items: center;
  width: 1.7rem;
  height: 1.7rem;
  border: 2px solid currentColor;
  border-radius: 0.35rem;
  font-weight: 700;
}
.done b {
  text-decoration: line-through;
}
.how {
  padding: 0 0 var(--s2) 2.4rem;
  font-size: 0.94rem;
}
</style>
