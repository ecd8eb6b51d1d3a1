<script setup lang="ts">
/** The next half hour of every pour that goes on by itself, on one axis, and where two want hands at once. Usage: <BenchLanes :lanes="lanesOf(…)" /> */
import { Hand } from '@lucide/vue'
import { computed } from 'vue'
import { counted } from '~/parts/show/counted'
import type { Lanes } from './lanes'

const props = defineProps<{ lanes: Lanes }>()
/** The soonest: what is done about it changes the others. */
const first = computed(() => props.lanes.clashes[0])
const others = computed(() => props.lanes.clashes.length - 1)
</script>

<template>
  <section class="ahead" aria-labelledby="lanes-title">
    <h2 id="lanes-title">The next half hour</h2>
    <p v-if="first" class="clash" data-testid="clash">
      <Hand :size="24" aria-hidden="true" />
      <span
        >{{ first.words }}
        <template v-if="others > 0">Later, {{ counted(others, 'more such moment') }}.</template></span
      >
    </p>
    <div class="axis" aria-hidden="true">
      <span class="now" :style="{ left: `${lanes.nowPct}%` }">now</span>
      <span v-for="tick in lanes.ticks" :key="tick.word" :style="{ left: `${tick.leftPct}%` }">{{
        tick.word
      }}</span>
    </div>
    <ul>
      <li v-for="lane in lanes.lanes" :key="lane.id" data-testid="lane">
        <NuxtLink :to="`/pour/${lane.id}`">
          <span class="piece">{{ lane.piece }}</span>
          <span class="visually-hidden">: {{ lane.spoken }}</span>
          <span class="bar" aria-hidden="true">
            <span
              v-for="part in lane.parts"
              :key="part.stage"
              class="part"
              :class="[part.hands ? 'hands' : 'free', { warm: part.stage === 'set' }]"
              :style="{ left: `${part.leftPct}%`, width: `${part.widthPct}%` }"
              ><span v-if="part.word" class="word">{{ part.word }}</span></span
            >
            <span class="line" :style="{ left: `${lanes.nowPct}%` }" />
          </span>
          <span v-if="lane.short" class="parts" aria-hidden="true">{{ lane.short }}</span>
        </NuxtLink>
      </li>
    </ul>
    <p class="key soft" aria-hidden="true">
      <i class="hands" /> wants hands <i class="free" /> goes by itself
    </p>
  </section>
</template>

<style scoped>
.ahead {
  padding: 0 var(--s3) var(--s4);
  display: grid;
  gap: var(--s2);
}
.clash svg {
  flex: none;
}
.clash {
  display: flex;
  gap: var(--s2);
  align-items: flex-start;
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
}
.axis {
  position: relative;
  height: 1.4rem;
  font-size: 0.9rem;
  color: var(--ink-soft);
}
.axis span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}
.axis span:last-child {
  transform: translateX(-100%);
}
.axis .now {
  font-weight: 700;
  color: var(--ink);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 0.35rem;
}
a {
  display: block;
  text-decoration: none;
  min-height: 44px;
}
.piece {
  display: block;
  font-weight: 700;
  font-size: 0.95rem;
  line-height: 1.2;
}
.parts {
  display: block;
  font-size: 0.9rem;
  line-height: 1.25;
}
@media (forced-colors: active) {
  .part,
  .key i {
    forced-color-adjust: none;
    border: 1px solid CanvasText;
  }
  .hands {
    background: CanvasText;
    color: Canvas;
  }
  .free .word {
    background: Canvas;
    color: CanvasText;
  }
  .line {
    border-color: Highlight;
  }
}
.bar {
  position: relative;
  display: block;
  height: 1.7rem;
  border-radius: 0.4rem;
  background: color-mix(in srgb, var(--line) 45%, var(--chalk));
  overflow: hidden;
}
.part {
  position: absolute;
  top: 0;
  bottom: 0;
  padding: 0.15rem 0.3rem;
  font-size: 0.85rem;
  font-weight: 700;
  white-space: nowrap;
  overflow: hidden;
  border-right: 2px solid var(--plaster);
}
.hands {
  background: var(--wet);
  color: var(--plaster);
}
.free {
  background: repeating-linear-gradient(115deg, var(--line) 0 2px, transparent 2px 9px);
  color: var(--ink);
}
.free .word {
  background: color-mix(in srgb, var(--line) 45%, var(--chalk));
  padding: 0 0.2rem;
  border-radius: 0.2rem;
}
.free.warm .word {
  background: var(--warm-light);
}
.free.warm {
  background: repeating-linear-gradient(115deg, var(--warm) 0 2px, transparent 2px 9px), var(--warm-light);
}
.line {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 3px solid var(--hot);
}
.key {
  font-size: 0.9rem;
  display: flex;
  gap: var(--s2);
  align-items: center;
}
.key i {
  width: 1.6rem;
  height: 1rem;
  border-radius: 0.2rem;
  border: 1px solid var(--line);
}
</style>
