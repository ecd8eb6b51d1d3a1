<script setup lang="ts">
import { computed } from 'vue'
import { CalendarClock, Droplets, Layers, Package, Settings2, Shapes } from '@lucide/vue'
import { usePreferences } from '~/parts/show/usePreferences'
import { isDiskFull } from '~/stores/api'
import { REHEARSAL_PLACE, useBench } from '~/stores/bench'
import { useConnection } from '~/stores/connection'
import { keepsNothing, placeOf } from '~/stores/kept'
import { useOutbox } from '~/stores/outbox'
import { useProbes } from '~/stores/probes'
import { isWithoutWorker } from '~/workers/askForecast'

const connection = useConnection()
const outbox = useOutbox()
// Everything is loaded here, once: what falls due rings wherever one is.
connection.start()
useProbes().start()

const bench = useBench()
/** On the wall there is nothing to press. */
const route = useRoute()
const isWall = computed(() => route.path === '/wall')
function endRehearsal() {
  placeOf('sessionStorage').removeItem(REHEARSAL_PLACE)
  location.href = '/'
}
const { look } = usePreferences()
useHead({ htmlAttrs: { 'data-look': look } })

const PLACES = [
  { to: '/', name: 'Bench', icon: Layers },
  { to: '/plan', name: 'Plan', icon: Droplets },
  { to: '/moulds', name: 'Moulds', icon: Shapes },
  { to: '/plasters', name: 'Plasters', icon: Package },
  { to: '/casts', name: 'Casts', icon: CalendarClock },
  { to: '/settings', name: 'Settings', icon: Settings2 },
]
</script>

<template>
  <div class="shell">
    <a class="skip" href="#main">Skip to content</a>
    <header v-if="!isWall" class="bar">
      <NuxtLink to="/" class="home">
        <img src="/rings.svg" alt="" width="34" height="34" />
        <span class="name">Nine Ripples</span>
      </NuxtLink>
      <nav aria-label="Places">
        <NuxtLink v-for="place in PLACES" :key="place.to" :to="place.to" class="place">
          <component :is="place.icon" :size="20" aria-hidden="true" />{{ place.name }}
        </NuxtLink>
      </nav>
    </header>
    <p v-if="!bench.isReal" class="offline rehearsal" role="status">
      A rehearsal, {{ bench.speed }} times as fast: nothing here is kept or sent.
      <button type="button" class="ghost" @click="endRehearsal">End it</button>
    </p>
    <p v-if="isDiskFull" class="offline" role="alert">
      The disk that the workshop is kept on is full. Make room there. Go on working: what you record is kept
      here<template v-if="outbox.unsent.length"> ({{ outbox.unsent.length }} waiting)</template> and goes by
      itself then.
    </p>
    <p v-else-if="!connection.connected" class="offline" role="status">
      Not connected. Go on working: what you record is kept here<template v-if="outbox.unsent.length">
        ({{ outbox.unsent.length }} waiting)</template
      >
      and sent as soon as the workshop answers.
    </p>
    <p v-else-if="connection.incomplete" class="offline" role="status">
      Not all of the workshop could be fetched: some of what stands here may be old. It is asked for again.
    </p>
    <p v-if="isWithoutWorker" class="offline" role="status">
      Forecasts are worked out in this window itself, more slowly. Reload it when nothing presses: it may have
      been renewed meanwhile.
    </p>
    <p v-if="keepsNothing" class="offline" role="status">
      This browser is told to keep nothing: half-filled plans, your name, what you prefer and cautions you
      have read are gone with this window. What you record goes to the workshop as always.
    </p>
    <p v-if="outbox.atRisk" class="offline" role="alert">
      This browser does not keep what you record: its disk is full, or this is a private window. Leave this
      window open until the workshop has answered.
    </p>
    <p v-if="outbox.refused.length > 0" class="offline" role="alert">
      {{
        outbox.refused.length === 1
          ? 'One thing you recorded was'
          : `${outbox.refused.length} things you recorded were`
      }}
      not taken. <NuxtLink to="/refused">Look at {{ outbox.refused.length === 1 ? 'it' : 'them' }}</NuxtLink>
    </p>
    <!-- On the wall it rings, too; what rings stands there already. -->
    <div :class="{ 'visually-hidden': isWall }"><DueNotices /></div>
    <main id="main" tabindex="-1">
      <NuxtPage />
    </main>
  </div>
</template>

<style scoped>
.shell {
  min-height: 100dvh;
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  display: flex;
  flex-direction: column;
  outline: none;
}
.skip {
  position: absolute;
  left: -100vw;
}
.skip:focus {
  left: var(--s3);
  top: var(--s3);
  background: var(--plaster);
  padding: var(--s3);
  z-index: 10;
}
.bar {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s4);
  padding: var(--s2) var(--s5);
  background: var(--plaster);
  border-bottom: 2px solid var(--line);
}
.home {
  display: flex;
  align-items: center;
  gap: var(--s3);
  text-decoration: none;
}
.name {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.15rem;
}
nav {
  display: flex;
  gap: var(--s1);
}
.place {
  display: flex;
  align-items: center;
  gap: var(--s2);
  min-width: 44px;
  min-height: 44px;
  justify-content: center;
  padding: 0 var(--s4);
  border-radius: 999px;
  text-decoration: none;
  font-weight: 600;
}
.place:hover {
  background: var(--chalk);
}
.place.router-link-active[aria-current='page'] {
  background: var(--ink);
  color: var(--plaster);
}
.offline {
  background: var(--hot-light);
  color: var(--ink);
  border-bottom: 2px solid var(--hot);
  padding: var(--s2) var(--s5);
  font-weight: 600;
}
/* The bench is home, and the bar has no room for both; in large letters it takes two rows. */
@media (max-width: 60rem) {
  .home {
    display: none;
  }
  nav {
    flex: 1;
    flex-wrap: wrap;
    justify-content: space-between;
  }
}
@media (max-width: 43rem) {
  .bar {
    padding: 0 var(--s2);
  }
  nav {
    gap: 0;
  }
  .place {
    padding: 0 0.42rem;
    font-size: 0.86rem;
  }
  .place svg {
    display: none;
  }
}
</style>
