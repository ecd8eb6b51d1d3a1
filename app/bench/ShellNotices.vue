<script setup lang="ts">
/**
 * What is to be known wherever one is: that nothing is kept, not connected, not taken, and what rings. How high all of it
 * is stands in `--notices`, so that a screen that fills the window fills what is left of it. Usage: <ShellNotices :is-wall />
 */
import { useResizeObserver } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { MS_PER } from '#core/units'
import { HOME } from '~~/shared/place'
import { isDiskFull } from '~/stores/api'
import { REHEARSAL_PLACE, useBench, useNowBy } from '~/stores/bench'
import { useConnection } from '~/stores/connection'
import { keepsNothing, placeOf } from '~/stores/kept'
import { useDeviceCopy } from '~/stores/deviceCopy'
import { useOutbox } from '~/stores/outbox'
import { useShell } from '~/stores/shell'
import { useCommands } from '~/stores/commands'
import { usePhotos } from '~/stores/photos'
import { usePeople } from '~/stores/people'
import { counted } from '~/parts/show/counted'
import { momentText } from '~/parts/show/time'
import { may, me } from '~/stores/me'
import { enterWorkshop, isLetIn, lostPlace, workshopHere } from '~/stores/place'
import { isLookingRound } from '~/stores/workshopsHere'
import { isWithoutWorker } from '~/workers/askForecast'

defineProps<{ isWall: boolean }>()
const bench = useBench()
const connection = useConnection()
const outbox = useOutbox()
const people = usePeople()
const commands = useCommands()
const photos = usePhotos()
const copy = useDeviceCopy()
const shell = useShell()
const now = useNowBy(MS_PER.min)
const waiting = computed(() => outbox.unsent.length + commands.waiting.length + photos.waiting.size)
const refused = computed(() => outbox.refused.length + commands.refused.length)
/** A pour runs in a window of this browser: the newer application waits. */
const isHeldBack = ref(false)
async function renew() {
  isHeldBack.value = !(await shell.renew())
}

function endRehearsal() {
  placeOf('sessionStorage').removeItem(REHEARSAL_PLACE)
  location.href = '/'
}
/** Where the browser is by now. */
function comeAlong() {
  if (lostPlace.value === 'elsewhere') location.assign('/')
  else enterWorkshop(HOME)
}
useResizeObserver(useTemplateRef<HTMLElement>('all'), ([seen]) =>
  document.documentElement.style.setProperty('--notices', `${seen!.contentRect.height}px`),
)
</script>

<template>
  <div ref="all">
    <p v-if="!bench.isReal" class="offline rehearsal" role="status">
      A rehearsal, {{ bench.speed }} times as fast: nothing here is kept or sent.
      <button type="button" class="ghost" @click="endRehearsal">End it</button>
    </p>
    <p v-if="isLookingRound() && !lostPlace" class="offline rehearsal" role="status">
      The demo workshop: nothing here is your own.
      <button type="button" class="ghost" @click="enterWorkshop(HOME)">Back to my workshop</button>
    </p>
    <p v-if="me && !may('work') && !lostPlace" class="offline rehearsal" role="status">
      {{ me.name }} looks on here: what is pressed records nothing.
    </p>
    <p v-if="lostPlace && isLetIn" class="offline" role="alert">
      {{
        lostPlace === 'elsewhere'
          ? 'Somebody else was let in on this browser. This window sends nothing any more.'
          : 'This device is not let in any more. What you record is kept here: ask at the desk for a code, and it goes out.'
      }}
      <template v-if="lostPlace === 'sign_in' && outbox.handedOver.size > 0">
        {{ counted(outbox.handedOver.size, 'thing') }} of it
        {{ outbox.handedOver.size === 1 ? 'lies' : 'lie' }}
        with whoever keeps the workshop.
      </template>
      <button v-if="lostPlace === 'elsewhere'" type="button" class="ghost" @click="comeAlong">
        Go on as they
      </button>
    </p>
    <p v-else-if="lostPlace" class="offline" role="alert">
      {{
        lostPlace === 'elsewhere'
          ? 'This browser has gone into another workshop in another window. This window sends nothing until it is back.'
          : 'This workshop is not on this server any more.'
      }}
      <button
        v-if="lostPlace === 'elsewhere'"
        type="button"
        class="ghost"
        @click="enterWorkshop(workshopHere)"
      >
        Back into this one
      </button>
      <button type="button" class="ghost" @click="comeAlong">
        {{ lostPlace === 'elsewhere' ? 'Come along' : 'To the workshop of this machine' }}
      </button>
    </p>
    <p v-else-if="isDiskFull" class="offline" role="alert">
      The disk that the workshop is kept on is full. Make room there. Go on working: what you record is kept
      here<template v-if="waiting"> ({{ waiting }} waiting)</template> and goes by itself then.
    </p>
    <p v-else-if="!connection.connected" class="offline" role="status">
      Not connected. Go on working: what you record is kept here<template v-if="waiting">
        ({{ waiting }} waiting)</template
      >
      and goes out by itself.<template v-if="copy.asOfMs !== undefined">
        What stands here is from {{ momentText(copy.asOfMs, now) }}.</template
      >
    </p>
    <p v-else-if="connection.incomplete" class="offline" role="status">
      Not all of the workshop could be fetched: some of what stands here may be old. It is asked for again.
    </p>
    <p v-for="of in people.held" :key="of.personId" class="offline" role="status">
      {{ of.name }} was put out, and {{ counted(of.events.length, 'thing') }} recorded on the
      {{ of.device.toLowerCase() }} came in since. <NuxtLink to="/people">Take or refuse</NuxtLink>
    </p>
    <p v-if="isWithoutWorker" class="offline" role="status">
      Forecasts are worked out in this window itself, more slowly. Reload it when nothing presses: it may have
      been renewed meanwhile.
    </p>
    <p v-if="keepsNothing" class="offline" role="status">
      This browser is told to keep nothing: half-filled plans, your name, what you prefer and cautions you
      have read are gone with this window. What you record goes to the workshop as always.
    </p>
    <p v-if="outbox.atRisk || photos.atRisk" class="offline" role="alert">
      This browser does not keep what you record: its disk is full, or this is a private window. Leave this
      window open until the workshop has answered.
    </p>
    <p v-if="refused > 0" class="offline" role="alert">
      {{ refused === 1 ? 'One thing you recorded was' : `${refused} things you recorded were` }}
      not taken. <NuxtLink to="/refused">Look at {{ refused === 1 ? 'it' : 'them' }}</NuxtLink>
    </p>
    <p v-if="(shell.newer || shell.isBehind) && !isWall" class="offline rehearsal" role="status">
      {{
        isHeldBack
          ? 'A pour is under way in a window here: the newer version waits until it is drying.'
          : 'A newer version lies ready.'
      }}
      <button type="button" class="ghost" @click="renew">Take it now</button>
    </p>
    <!-- On the wall it rings, too; what rings stands there already. -->
    <div :class="{ 'visually-hidden': isWall }"><DueNotices /></div>
  </div>
</template>

<style scoped>
/* As wide as the window, its lines no longer than can be read. */
.offline {
  max-width: none;
  padding: var(--s2) max(var(--s5), calc(100% - 88ch)) var(--s2) var(--s5);
  background: var(--hot-light);
  color: var(--ink);
  border-bottom: 2px solid var(--hot);
  font-weight: 600;
}
.offline button + button {
  margin-left: var(--s2);
}
/* The run's first view stays whole under it. */
@media (max-width: 43rem) {
  .offline {
    padding: var(--s1) var(--s4);
    font-size: 0.9rem;
    line-height: 1.25;
  }
}
</style>
