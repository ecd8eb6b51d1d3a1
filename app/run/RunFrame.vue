<script setup lang="ts">
/**
 * How every screen of a run is laid out: what is to be known at first sight, then the dock with the way on, then the
 * rest. Nothing lies over anything: where it fits the window, the dock stands at its foot.
 * Usage: <RunFrame :run>…<template #aside /><template #dock /><template #rest /></RunFrame>
 */
import type { StandingRun } from './useRun'

defineProps<{ run: StandingRun }>()
</script>

<template>
  <div class="first">
    <section class="head" :aria-label="run.record.plan.piece">
      <div class="which">
        <RunName :run />
        <RunLinks :run class="later" />
      </div>
      <div class="now"><slot /></div>
      <div class="aside"><slot name="aside" /></div>
    </section>
    <div class="dock"><slot name="dock" /></div>
  </div>
  <div class="rest"><slot name="rest" /></div>
</template>

<style scoped>
.first {
  min-height: calc(100dvh - var(--bar) - var(--notices, 0px));
  display: grid;
  grid-template-rows: 1fr auto;
}
.head {
  display: grid;
  grid-template-columns: 8.5rem minmax(0, 1fr) minmax(12rem, 15rem);
  gap: var(--s4) var(--s5);
  padding: var(--s4) var(--s6);
  align-items: start;
}
.which,
.now,
.aside {
  display: grid;
  gap: var(--s2);
  min-width: 0;
  align-content: start;
}
.aside:empty,
.rest:empty {
  display: none;
}
.dock {
  background: var(--ground);
}
.rest {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(21rem, 100%), 1fr));
  gap: var(--s4) var(--s6);
  padding: var(--s5) var(--s6);
  align-items: start;
}
@media (max-width: 72rem) {
  .head {
    grid-template-columns: 7rem minmax(0, 1fr) minmax(11rem, 13rem);
    gap: var(--s3) var(--s4);
    padding: var(--s3) var(--s5);
  }
}
@media (max-width: 56rem) {
  .head {
    grid-template-columns: 7rem minmax(0, 1fr);
  }
  .aside {
    grid-column: 1 / -1;
  }
}
/* One column in the order of need: what to do, its clock, what can hurt, what to tick, the way on; then how in full. */
@media (max-width: 43rem) {
  .first,
  .head,
  .which,
  .now,
  .aside,
  .rest {
    display: contents;
  }
  .dock {
    order: 3;
    margin: auto calc(-1 * var(--s4)) 0;
  }
  .head :deep(.cautions) {
    order: 1;
  }
  .head :deep(.tasks) {
    order: 2;
  }
  .head :deep(.later),
  .rest > :deep(*) {
    order: 4;
  }
  .rest > :deep(:last-child) {
    margin-bottom: var(--s5);
  }
}
</style>
<style>
@media (max-width: 43rem) {
  .run {
    gap: var(--s2);
    padding: var(--s2) var(--s4) 0;
  }
}
</style>
