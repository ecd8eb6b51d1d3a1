<script setup lang="ts">
/**
 * How every screen of a run is laid out: what is to be known at first sight, then the dock with the way on, then the
 * rest. Nothing lies over anything: where it all fits the window the dock stands at its foot, and it stays there only
 * while hands are in the plaster.
 * Usage: <RunFrame :run sticky>…<template #aside /><template #dock /><template #rest /></RunFrame>
 */
import type { StandingRun } from './useRun'

defineProps<{
  run: StandingRun
  /** The dock stays at the foot of the window while what stands above it is longer. */
  sticky?: boolean
}>()
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
    <div class="dock" :class="{ sticky }"><slot name="dock" /></div>
  </div>
  <div class="rest"><slot name="rest" /></div>
</template>

<style scoped>
.first {
  min-height: calc(100dvh - var(--bar));
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
/* In a low window the dock would leave no room for what it belongs to. */
@media (min-height: 43.75rem) {
  .dock.sticky {
    position: sticky;
    bottom: 0;
    z-index: 1;
  }
}
@media (max-width: 72rem) {
  .head {
    grid-template-columns: 8.5rem minmax(0, 1fr);
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
/* What the focus goes to does not come to lie under the dock. */
@media (min-height: 43.75rem) {
  html:has(.dock.sticky) {
    scroll-padding-bottom: 36dvh;
  }
}
</style>
