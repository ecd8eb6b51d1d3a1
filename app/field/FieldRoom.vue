<script setup lang="ts">
/** Out there: what to take along, what was found, and what this device keeps meanwhile. */
import { computed } from 'vue'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { usePhotos } from '~/stores/photos'
import { useWorkshop } from '~/stores/workshop'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { GROUND_NAMES } from '~/parts/field/words'
import { wayOf } from '~/parts/field/derive'

const workshop = useWorkshop()
const photos = usePhotos()
const units = useUnits()
const now = useNowBy(MS_PER.min)
const prints = computed(() =>
  workshop.moulds
    .flatMap((card) => (card.find ? [{ card, find: card.find, way: wayOf(card) }] : []))
    .sort((a, b) => b.find.foundAtMs - a.find.foundAtMs),
)
const placed = computed(() =>
  prints.value.flatMap(({ card, find }) =>
    find.position ? [{ id: card.id, name: card.name, position: find.position }] : [],
  ),
)
</script>

<template>
  <div class="page">
    <header class="top">
      <h1>In the field</h1>
      <div class="button-row">
        <NuxtLink class="p-button" to="/field/prints/new">A print found</NuxtLink>
        <NuxtLink class="p-button p-button-secondary" to="/field/pack">What to pack</NuxtLink>
      </div>
    </header>
    <div class="columns">
      <section class="slab part" aria-labelledby="prints-title">
        <h2 id="prints-title">Prints</h2>
        <p v-if="prints.length === 0" class="soft">
          None yet. To practise indoors, press a hand or a stamp into a tray of damp sand and find it here.
        </p>
        <ol class="prints">
          <li v-for="{ card, find, way } in prints" :key="card.id">
            <NuxtLink :to="`/field/prints/${card.id}`">
              <img
                v-if="photos.ofMould(card.id, card.photos)[0]"
                :src="photos.addressOf(photos.ofMould(card.id, card.photos)[0]!.id, 'thumb')"
                alt=""
                loading="lazy"
              />
              <span v-else class="none" aria-hidden="true" />
              <span>
                <b>{{ card.name }}</b><br />
                <span class="soft">
                  {{ GROUND_NAMES[find.ground]
                  }}<template v-if="way">, {{ units.size(Math.round(way.printLengthMm)) }} long</template>,
                  {{ momentText(find.foundAtMs, now)
                  }}<template v-if="find.place"> · {{ find.place }}</template>
                </span>
              </span>
            </NuxtLink>
          </li>
        </ol>
        <NuxtLink v-if="prints.length > 0" :to="{ path: '/field/sheet', query: { filled: '' } }"
          >Field sheet, filled</NuxtLink
        >
        <FieldSketch v-if="placed.length > 1" :prints="placed" />
      </section>
      <div class="part">
        <AwayReady />
        <FieldFiles :cards="prints.map((p) => p.card)" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s3);
}
.columns {
  display: grid;
  gap: var(--s4);
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  align-items: start;
}
.part {
  display: grid;
  gap: var(--s3);
  min-width: 0;
}
.prints {
  list-style: none;
  margin: 0;
  padding: 0;
}
.prints a {
  display: flex;
  gap: var(--s3);
  align-items: center;
  min-height: 44px;
  padding: var(--s2) 0;
  border-top: 2px solid var(--line);
  text-decoration: none;
}
.prints img,
.none {
  width: 5.5rem;
  height: 4.2rem;
  object-fit: cover;
  border-radius: 0.6rem;
  flex: none;
  background: var(--line);
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
