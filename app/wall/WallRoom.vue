<script setup lang="ts">
/** The whole shed at a glance, to be read from four metres: what each pour wants, the most urgent first. */
import { useWakeLock } from '@vueuse/core'
import { computed } from 'vue'
import { useOpenLines } from '~/parts/pour/useOpenLines'
import { counted } from '~/parts/show/counted'
import { groundOf } from '~/parts/show/ground'
import { saveFile } from '~/parts/show/saveFile'
import { momentText } from '~/parts/show/time'
import { usePours } from '~/stores/pours'
import { useUpkeep } from '~/stores/upkeep'
import { useWorkshop } from '~/stores/workshop'

/** As many lines as can be read from afar on one screen. */
const MOST_LINES = 6

const pours = usePours()
const workshop = useWorkshop()
const upkeep = useUpkeep()

const { lines, now } = useOpenLines()
const shown = computed(() => lines.value.slice(0, MOST_LINES))
const more = computed(() => lines.value.length - shown.value.length)

async function saveCalendar() {
  const { calendarOf } = await import('./calendar')
  const text = calendarOf(
    workshop.settings.workshopName,
    lines.value.map(({ id, facts }) => ({ id, facts })),
    upkeep.lines,
    now.value,
    location.origin,
  )
  saveFile('nine-ripples.ics', 'text/calendar', text)
}
// It hangs on a wall: nobody touches it.
void useWakeLock()
  .request('screen')
  .catch(() => {})
</script>

<template>
  <div class="wall">
    <header>
      <h1>{{ workshop.settings.workshopName }}</h1>
      <p class="figure clock">{{ momentText(now, now) }}</p>
    </header>
    <ul v-if="shown.length > 0">
      <li
        v-for="line in shown"
        :key="line.id"
        :class="[groundOf(line.view.stage), { late: line.next.late, hands: line.view.urgency === 'hands' }]"
      >
        <RingSign :rings="line.view.rings" :size="96" :label="line.next.stage" />
        <span class="what">
          <span class="piece">{{ line.piece }}</span>
          <span class="doing">{{ line.next.doing }}</span>
        </span>
        <span class="figure time" :class="{ long: line.next.time.length > 6 }">{{ line.next.time }}</span>
      </li>
    </ul>
    <p v-else class="none">
      {{ pours.openLoaded ? 'Nothing is setting or drying.' : 'Looking at the bench…' }}
    </p>
    <footer>
      <span v-if="more > 0">and {{ counted(more, 'more pour') }}</span>
      <button type="button" class="ghost" @click="saveCalendar">Calendar file</button>
      <NuxtLink to="/">Bench</NuxtLink>
    </footer>
  </div>
</template>

<style scoped>
.wall {
  --ring: #ffc861;
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 1vh;
  padding: 1.5vh 1.5vw;
  background: var(--ink);
  color: var(--plaster);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 2vw;
}
h1 {
  font-size: clamp(1.4rem, 2.6vw, 3.2rem);
}
.clock {
  font-size: clamp(2rem, 4.4vw, 5.4rem);
  line-height: 1;
}
ul {
  flex: 1;
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-auto-rows: minmax(0, 1fr);
  gap: 1vh;
}
li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  align-items: center;
  gap: 1.6vw;
  padding: 0 1.6vw;
  border-radius: 1.2rem;
  background: var(--ground);
  color: var(--on-ground);
  border: 5px solid transparent;
}
/* Never by colour alone: the words say it, too. */
li.hands,
li.late {
  border-color: var(--warm-light);
}
.what {
  display: grid;
  min-width: 0;
}
.piece {
  font-size: clamp(1rem, 1.9vw, 2.4rem);
  font-weight: 600;
  line-height: 1.1;
}
.doing {
  font-size: clamp(1.4rem, 3.3vw, 4.2rem);
  font-weight: 700;
  line-height: 1.05;
}
.time {
  font-size: clamp(2.6rem, 6.6vw, 8.4rem);
  line-height: 1;
}
.time.long {
  font-size: clamp(1.8rem, 4vw, 5rem);
}
.none {
  flex: 1;
  font-size: 3rem;
}
footer {
  display: flex;
  align-items: center;
  gap: var(--s5);
  min-height: 44px;
  font-size: 1.2rem;
}
footer a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
footer .ghost {
  background: transparent;
  color: inherit;
  border: 2px solid currentColor;
  border-radius: 999px;
  padding: 0 var(--s4);
  min-height: 44px;
  cursor: pointer;
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: 1fr auto;
  }
  li > :first-child {
    display: none;
  }
}
</style>
