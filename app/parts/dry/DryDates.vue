<script setup lang="ts">
/** When a drying piece will do for what: one in ten before, likely, nine in ten by then. Usage: <DryDates :dates :now-ms /> */
import { computed } from 'vue'
import type { DryDate } from '#core/pour'
import { MS_PER } from '#core/units'
import { momentText, dayText } from '~/parts/show/time'
import { DRY_TARGET_WORDS } from '~/parts/words/pour'

const props = defineProps<{ dates: readonly DryDate[]; nowMs: number }>()

/** To the minute while it is near, then to the day. */
function when(atMs: number, near: boolean): string {
  if (atMs <= props.nowMs) return 'by now'
  return near ? momentText(atMs, props.nowMs) : dayText(atMs, props.nowMs)
}
const rows = computed(() =>
  props.dates.map(({ target, wanted, atMs }) => {
    const near = atMs.high - props.nowMs < MS_PER.day
    return {
      target,
      wanted,
      early: when(atMs.low, near),
      likely: when(atMs.mid, near),
      sure: when(atMs.high, near),
      done: atMs.high <= props.nowMs,
    }
  }),
)
</script>

<template>
  <table class="dates">
    <caption class="visually-hidden">
      When it will do for what
    </caption>
    <thead>
      <tr>
        <th scope="col">Dry enough to</th>
        <th scope="col">1 in 10 by</th>
        <th scope="col">likely</th>
        <th scope="col">9 in 10 by</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.target" :class="{ wanted: row.wanted, done: row.done }">
        <th scope="row">{{ DRY_TARGET_WORDS[row.target] }}</th>
        <td>{{ row.early }}</td>
        <td>
          <b>{{ row.likely }}</b>
        </td>
        <td>{{ row.sure }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.dates {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: right;
  font-weight: 400;
  padding: 0.2rem 0 0.2rem var(--s2);
  border-bottom: 1px solid color-mix(in srgb, currentColor 22%, transparent);
}
@media (min-width: 43.01rem) {
  td,
  thead th {
    white-space: nowrap;
  }
}
thead th {
  font-size: 0.86rem;
}
th:first-child {
  text-align: left;
  padding-left: 0;
}
.wanted {
  font-size: 1.08rem;
}
.wanted th {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 0.2em;
}
</style>
