<script setup lang="ts">
import { computed } from 'vue'
import { airTactics, letsGo, preparationOf, releaseAdvice, describeCavity } from '#core/mould'
import { weighOutForVolume } from '#core/mix'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import {
  LET_GO_WORDS,
  MATERIAL_WORDS,
  PREPARATION_WORDS,
  RELEASE_WORDS,
  TACTIC_WORDS,
} from '~/parts/words/mould'
import { plasterOf } from '~/parts/plaster/plasterChoice'
import { pictured, sectionOf } from '~/parts/mould/ways'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const units = useUnits()
await workshop.ready

const card = computed(() => workshop.moulds.find((m) => m.id === id))
const plaster = computed(() => {
  const plasterKey = card.value?.usualPlasterId ?? 'class:pottery'
  const additions = workshop.plasters.find((p) => p.id === plasterKey)?.additions ?? []
  return plasterOf({ plasterKey, bagId: '', additions }, workshop, 0)
})
const SPARE_PCT = 10
const weighOut = computed(() => {
  if (!card.value || !plaster.value) return undefined
  const { properties } = plaster.value
  const mix = {
    plaster: properties,
    consistency: properties.useConsistency,
    waterTempC: workshop.settings.tapTempC,
    airFraction: 0.01,
  }
  return weighOutForVolume(mix, card.value.cavityMl, SPARE_PCT, workshop.settings.scaleDivisionG)
})
const described = computed(() => (card.value ? describeCavity(card.value.volume) : undefined))
const undercutMm = computed(() => (described.value?.ok ? described.value.finding.undercutMm : undefined))
</script>

<template>
  <PrintPage :back="`/moulds/${id}`" back-name="Back to the mould">
    <article v-if="card" class="paper">
      <header>
        <h1>{{ card.name }}</h1>
        <p>{{ MATERIAL_WORDS[card.facts.material] }} · {{ workshop.settings.workshopName }}</p>
      </header>
      <SectionPicture
        class="picture"
        :drawing="sectionOf(pictured(card.volume), card.cavityMl)"
        :material="card.facts.material"
        :label="`Section of ${card.name}`"
        dimensions
      />
      <div class="figures">
        <div>
          <span class="what">Holds</span
          ><span class="figure">{{ units.volumeRange(card.cavityMl, card.plusMinusMl)[0] }}</span>
          <span>± {{ units.volumeRange(card.cavityMl, card.plusMinusMl)[1] }}</span>
        </div>
        <template v-if="weighOut && plaster">
          <div>
            <span class="what">Water</span><span class="figure">{{ units.mass(weighOut.waterG) }}</span>
            <span>{{ units.massOther(weighOut.waterG) }}</span>
          </div>
          <div>
            <span class="what">{{ plaster.name }}</span
            ><span class="figure">{{ units.mass(weighOut.powderG) }}</span>
            <span>{{ units.massOther(weighOut.powderG) }}</span>
          </div>
          <div v-if="weighOut.fillerG > 0">
            <span class="what">Silica</span><span class="figure">{{ units.mass(weighOut.fillerG) }}</span>
            <span>{{ units.massOther(weighOut.fillerG) }}</span>
          </div>
        </template>
      </div>
      <p v-if="weighOut" class="soft">
        With {{ SPARE_PCT }} % spare, {{ Math.round(weighOut.consistency) }} parts of water to 100, water at
        {{ units.temp(workshop.settings.tapTempC) }}.
      </p>
      <div class="lists">
        <section>
          <h2>To make ready</h2>
          <ul class="boxes">
            <li v-for="p in preparationOf(card.facts, card.volume)" :key="p">{{ PREPARATION_WORDS[p] }}</li>
          </ul>
        </section>
        <section>
          <h2>Release</h2>
          <p v-for="code in releaseAdvice(card.facts.material, plaster?.properties.classId)" :key="code">
            {{ RELEASE_WORDS[code].text }}
          </p>
          <h2>Out of it</h2>
          <p v-for="o in letsGo(card.facts, undercutMm)" :key="o.code">{{ LET_GO_WORDS[o.code] }}</p>
          <template v-if="card.facts.airTraps.length > 0">
            <h2>Air</h2>
            <p v-for="t in airTactics(card.facts)" :key="t">{{ TACTIC_WORDS[t] }}</p>
          </template>
        </section>
      </div>
      <p v-if="card.note">{{ card.note }}</p>
      <p class="soft">
        Respirator while powder is dry. Never any part of a body in plaster. Nothing into a drain.
      </p>
    </article>
    <h1 v-else>This mould is not here (any more).</h1>
  </PrintPage>
</template>

<style scoped>
.picture {
  height: 15rem;
}
.figures,
.lists {
  display: grid;
  gap: var(--s4);
  grid-template-columns: repeat(auto-fit, minmax(min(10rem, 100%), 1fr));
}
.figures > div {
  display: grid;
  gap: 2px;
  border-top: 2px solid var(--ink);
  padding-top: var(--s2);
}
.figure {
  font-size: 2.4rem;
}
.what {
  font-weight: 600;
}
.lists {
  grid-template-columns: repeat(auto-fit, minmax(min(16rem, 100%), 1fr));
}
section {
  display: grid;
  gap: var(--s1);
  align-content: start;
}
h2 {
  font-size: 1.05rem;
  margin-top: var(--s1);
}
@media print {
  .paper {
    padding: 0;
    border-radius: 0;
  }
}
</style>
