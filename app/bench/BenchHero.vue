<script setup lang="ts">
/** The pour that wants hands first, large. Usage: <BenchHero :id :piece :view :next /> */
import { computed } from 'vue'
import { STAGES, type PourView } from '#core/pour'
import { groundOf } from '~/parts/show/ground'
import type { NextThing } from '~/parts/pour/nextThing'

const props = defineProps<{ id: string; piece: string; view: PourView; next: NextThing }>()
const sign = computed(() => `${props.next.stage}, stage ${STAGES.indexOf(props.view.stage) + 1} of 9`)
</script>

<template>
  <NuxtLink :to="`/pour/${id}`" class="hero" :class="groundOf(view.stage)">
    <RingSign class="sign" :rings="view.rings" :size="300" :label="sign" />
    <span class="words">
      <span class="piece">{{ piece }}</span>
      <span class="stage">{{ next.stage }}</span>
      <span class="doing">{{ next.doing }}</span>
      <span class="figure time" :class="{ long: next.time.length > 6 }">{{ next.time }}</span>
    </span>
  </NuxtLink>
</template>

<style scoped>
/* Seen on the page beside it, and on its own ground. */
.hero:focus-visible {
  outline-color: var(--ring-on-light);
  outline-offset: 0;
  box-shadow: inset 0 0 0 4px #ffc861;
}
.hero {
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  gap: var(--s4);
  padding: var(--s5) var(--s6) var(--s6);
  text-decoration: none;
  height: calc(100dvh - 4rem);
}
.sign {
  width: auto;
  height: auto;
  max-height: 40%;
  align-self: flex-start;
}
.words {
  display: grid;
  gap: var(--s2);
}
.piece {
  font-size: 1.3rem;
}
.stage {
  color: var(--on-ground-soft);
  font-weight: 600;
}
.doing {
  font-family: var(--display);
  font-weight: 700;
  font-size: clamp(1.7rem, 3.4vw, 2.6rem);
  line-height: 1.05;
}
.time {
  font-size: clamp(4.5rem, 11vw, 8.5rem);
  white-space: nowrap;
}
.time.long {
  font-size: clamp(2.6rem, 5.6vw, 4.6rem);
}
@media (max-width: 60rem) {
  .hero {
    flex-direction: row;
    align-items: center;
    justify-content: flex-start;
    padding: var(--s4);
    gap: var(--s4);
    height: auto;
  }
  .sign {
    width: 108px;
    align-self: center;
  }
  .time {
    font-size: 3.4rem;
  }
  .time.long {
    font-size: 2.1rem;
  }
  .doing {
    font-size: 1.35rem;
  }
  .piece {
    font-size: 1.1rem;
  }
}
</style>
