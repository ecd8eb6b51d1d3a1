<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useBench } from '~/stores/bench'
import { may } from '~/stores/me'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { isLookingRound } from '~/stores/workshopsHere'
import { lanesOf } from './lanes'
import { useOpenLines } from '~/parts/pour/useOpenLines'
import { rawPiece } from '~/parts/show/rawRecord'

const pours = usePours()
const workshop = useWorkshop()
const bench = useBench()

const { lines, now } = useOpenLines()
const ahead = computed(() => lanesOf(lines.value, now.value))
const unreadable = computed(() => [...pours.unreadable.values()])
/** Nothing was ever kept here: there is nothing to look at yet. */
const isNew = computed(
  () =>
    !isLookingRound() && workshop.moulds.length + workshop.plasters.length + workshop.recipes.length === 0,
)
const first = computed(() => lines.value[0])

/** Opened anew, what wants a hand soonest is on the screen before all the others are drawn. */
const isFirstDrawn = ref(pours.openLoaded)
watch(
  first,
  (now) => {
    if (now && !isFirstDrawn.value) requestAnimationFrame(() => setTimeout(() => (isFirstDrawn.value = true)))
  },
  { immediate: true },
)
</script>

<template>
  <div v-if="first" class="bench">
    <BenchHero :id="first.id" :piece="first.piece" :view="first.view" :next="first.next" />
    <section aria-labelledby="bench-title" class="rest">
      <div class="top">
        <div>
          <h1 id="bench-title">Bench</h1>
          <p class="soft">
            {{ workshop.settings.workshopName }} · {{ lines.length }} on the go, most urgent first
          </p>
        </div>
        <div class="ways">
          <NuxtLink to="/wall">On the wall</NuxtLink>
          <NuxtLink to="/field">Field</NuxtLink>
          <NuxtLink to="/quick">Quick</NuxtLink>
          <NuxtLink to="/plan" class="main-button">Plan a pour</NuxtLink>
        </div>
      </div>
      <template v-if="isFirstDrawn">
        <BenchLanes v-if="ahead.lanes.length > 0" :lanes="ahead" />
        <PourLine
          v-for="line in lines.slice(1)"
          :id="line.id"
          :key="line.id"
          :piece="line.piece"
          :view="line.view"
          :next="line.next"
        />
        <BenchUpkeep :now-ms="now" />
        <SettlingBucket :now-ms="now" />
        <BackupOverdue v-if="bench.isReal && may('keep')" />
        <p v-if="bench.isReal" class="rehearse">
          <a href="/?rehearse=60" target="_blank" rel="noopener">Rehearse the next hour in a minute</a>
          <span class="soft"> in a window of its own; nothing of it is kept.</span>
        </p>
        <NuxtLink v-for="broken in unreadable" :key="broken.id" :to="`/casts/${broken.id}`" class="broken">
          <b>{{ rawPiece(broken) }}</b> cannot be read. It is kept as it is.
        </NuxtLink>
      </template>
    </section>
  </div>
  <div v-else class="page still">
    <RingSign :rings="[0, 0, 0, 0, 0, 0, 0, 0, 0]" :size="180" label="No pour on the go" />
    <template v-if="pours.openLoaded">
      <h1>The bench is clear</h1>
      <p class="soft">
        Nothing is setting or drying. Three questions come to a bucket that works; nothing is mixed until you
        say so.
      </p>
      <NuxtLink to="/quick" class="main-button">Quick: three questions</NuxtLink>
      <NuxtLink to="/plan" class="other">Plan a pour</NuxtLink>
      <NuxtLink to="/field" class="other">Out in the field</NuxtLink>
      <LookRound v-if="isNew" />
    </template>
    <template v-else-if="pours.loadFailed">
      <h1>The workshop does not answer</h1>
      <p class="soft">What you recorded is safe. Check that Nine Ripples is still running on its computer.</p>
      <button type="button" class="main-button" @click="pours.loadOpen()">Try again</button>
    </template>
    <p v-else class="soft" role="status">Looking at the bench…</p>
  </div>
</template>

<style scoped>
.bench {
  flex: 1;
  display: grid;
  grid-template-columns: 5fr 7fr;
}
.bench > :first-child {
  position: sticky;
  top: 0;
  align-self: start;
}
.rehearse {
  padding: 0 var(--s3) var(--s4);
}
.rehearse a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.broken {
  display: block;
  padding: var(--s3);
  border-left: 6px solid var(--hot);
  margin-top: var(--s3);
}
.rest {
  padding: var(--s5);
  min-width: 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s4);
}
.ways a:not(.main-button),
.other {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: var(--s2) var(--s4);
  margin-bottom: var(--s4);
  padding-left: var(--s3);
}
.still {
  display: grid;
  justify-items: center;
  text-align: center;
  gap: var(--s4);
  padding-top: 4rem;
}
@media (max-width: 60rem) {
  .bench {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }
  .bench > :first-child {
    position: static;
  }
  .rest {
    padding: var(--s4);
  }
  .top {
    padding-left: 0;
  }
}
</style>
