<script setup lang="ts">
import { computed, watchEffect } from 'vue'
import { CalendarClock, Droplets, Layers, Package, Settings2, Shapes } from '@lucide/vue'
import { usePreferences } from '~/parts/show/usePreferences'
import { useConnection } from '~/stores/connection'
import { isStranger } from '~/stores/place'
import { useProbes } from '~/stores/probes'
import { useShell } from '~/stores/shell'

const connection = useConnection()
// Everything is loaded here, once: what falls due rings wherever one is.
connection.start()
useProbes().start()
void useShell().start()

/** On the wall there is nothing to press. */
const route = useRoute()
const isWall = computed(() => route.path === '/wall')
/** There is nothing here for whoever was not let in but how that is done. */
watchEffect(() => {
  if (isStranger.value && !['/pair', '/trust'].includes(route.path))
    void navigateTo('/pair', { replace: true })
})
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
    <header v-if="!isWall && !isStranger" class="bar">
      <!-- The bench again: by keyboard once is enough. -->
      <NuxtLink to="/" class="home" tabindex="-1">
        <img src="/rings.svg" alt="" width="34" height="34" />
        <span class="name">Nine Ripples</span>
      </NuxtLink>
      <nav aria-label="Places">
        <NuxtLink v-for="place in PLACES" :key="place.to" :to="place.to" class="place">
          <component :is="place.icon" :size="20" aria-hidden="true" />{{ place.name }}
        </NuxtLink>
      </nav>
    </header>
    <ShellNotices v-if="!isStranger" :is-wall="isWall" />
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
