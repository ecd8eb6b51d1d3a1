<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { propertiesOfCard, toBuy } from '#core/stock'
import { useUnits } from '~/parts/show/useUnits'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { counted } from '~/parts/show/counted'
import { demandsOf, stockOf } from './buying'
import { plain } from '~/parts/show/figures'
import { ADDITION_WORDS, SET_TEST_WORDS } from '~/parts/words/mix'
import { plasterOf } from '~/parts/plaster/plasterChoice'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'
import { failureWords } from '~/parts/words/errors'
import type { BagCard, PlasterCard } from '~~/shared/stock'

const workshop = useWorkshop()
const pours = usePours()
const units = useUnits()
const route = useRoute()
await workshop.ready

const editing = ref(false)
const card = ref<PlasterCard>()
function edit(of: PlasterCard | undefined) {
  card.value = of
  editing.value = true
}
const bagging = ref(false)
const bagId = ref('')
const plaster = ref<PlasterCard>()
/** From the shelf each time, so that what changed shows. */
const bag = computed(() => workshop.bags.find((b) => b.id === bagId.value))
function openBag(of: PlasterCard, which: BagCard | undefined) {
  plaster.value = of
  bagId.value = which?.id ?? ''
  bagging.value = true
}
const testing = ref(false)
function test(of: PlasterCard, which: BagCard) {
  plaster.value = of
  bagId.value = which.id
  testing.value = true
}
const asked = workshop.bags.find((b) => b.id === route.query.bag)
const askedOf = workshop.plasters.find((p) => p.id === asked?.plasterId)
if (asked && askedOf) test(askedOf, asked)

const failure = ref('')
async function drop(of: PlasterCard) {
  const answer = await workshop.deletePlaster(of.id)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}

const cards = computed(() =>
  workshop.plasters.map((p) => ({
    card: p,
    properties: propertiesOfCard(p.label),
    bags: workshop.bags.filter((b) => b.plasterId === p.id),
    inPlan: plasterOf({ plasterKey: p.id, bagId: '', additions: p.additions }, workshop, 0)!,
  })),
)
const needs = computed(() =>
  toBuy(demandsOf(pours.open.map((o) => o.facts)), stockOf(workshop.plasters, workshop.bags)).filter(
    (n) => n.wantedG > 0,
  ),
)
</script>

<template>
  <div class="page">
    <header>
      <h1>Plasters</h1>
      <Button label="A plaster, from its bag" @click="edit(undefined)" />
    </header>
    <section v-if="needs.length > 0" class="slab" aria-labelledby="buy-title">
      <h2 id="buy-title">For the pours planned</h2>
      <ul class="needs" data-testid="needs">
        <li v-for="n in needs" :key="n.plaster" :class="{ missing: n.missingG > 0 }">
          <b>{{ n.plaster }}</b>
          <span>{{ units.roughMass(n.wantedG) }} wanted</span>
          <span v-if="n.missingG > 0"
            ><b>buy {{ n.bags ? counted(n.bags, 'bag') : units.roughMass(n.missingG) }}</b>
            <template v-if="n.leftG > 0">, {{ units.roughMass(n.leftG) }} is there</template></span
          >
          <span v-else>enough: {{ units.roughMass(n.leftG) }} is there</span>
        </li>
      </ul>
    </section>
    <UnreadableCards :cards="workshop.unreadable.stock" />
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-if="workshop.stockFailed" class="slab" role="alert">
      The plasters cannot be fetched just now. They come back as soon as the workshop answers.
    </p>
    <div v-else-if="cards.length === 0" class="slab empty">
      <h2>No plaster of your own yet</h2>
      <p>
        Plans can start from a class. A card from your bag’s label is closer: its ratio, its setting time, its
        strength.
      </p>
      <Button label="A plaster, from its bag" @click="edit(undefined)" />
    </div>
    <div class="cards">
      <section v-for="c in cards" :key="c.card.id" class="slab card" :aria-label="c.card.name">
        <div class="top">
          <div>
            <h2>{{ c.card.name }}</h2>
            <p class="soft">{{ PLASTER_CLASS_WORDS[c.card.label.classId] }}</p>
          </div>
          <div class="ratio">
            <span class="figure">{{ Math.round(c.inPlan.properties.useConsistency) }}</span>
            <span class="soft">water to 100</span>
          </div>
        </div>
        <p>
          <template v-if="c.card.printedRatio">The bag says “{{ c.card.printedRatio }}”. </template
          ><template v-if="c.card.label.setMin !== null"
            >Sets in {{ c.card.label.setMin }} min ({{ SET_TEST_WORDS[c.card.label.setTest] }}). </template
          ><template v-if="c.card.additions.length > 0"
            >With
            {{
              c.card.additions
                .map((a) => `${plain(a.pct)} % ${ADDITION_WORDS[a.id].name.toLowerCase()}`)
                .join(', ')
            }}. </template
          >{{ c.card.note }}
        </p>
        <BagLine
          v-for="b in c.bags"
          :key="b.id"
          :bag="b"
          :plaster="c.card"
          @change="openBag(c.card, b)"
          @test="test(c.card, b)"
        />
        <div class="acts">
          <Button
            severity="secondary"
            label="Another bag"
            :aria-label="`Another bag of ${c.card.name}`"
            @click="openBag(c.card, undefined)"
          />
          <Button
            severity="secondary"
            label="Change the card"
            :aria-label="`Change the card of ${c.card.name}`"
            @click="edit(c.card)"
          />
          <Button
            v-if="c.bags.length === 0"
            severity="secondary"
            label="Throw it away"
            :aria-label="`Throw it away: ${c.card.name}`"
            @click="drop(c.card)"
          />
        </div>
        <PlasterSources :plaster="c.inPlan" />
      </section>
    </div>
    <PlasterEditor v-model="editing" :card="card" />
    <BagEditor v-model="bagging" :plaster="plaster" :bag="bag" />
    <SpoonTest v-model="testing" :plaster="plaster" :bag="bag" />
  </div>
</template>

<style scoped>
header,
.top {
  display: flex;
  justify-content: space-between;
  gap: var(--s4);
  align-items: center;
}
.cards {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(min(28rem, 100%), 1fr));
}
.card {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
.ratio {
  display: grid;
  justify-items: end;
  white-space: nowrap;
}
.ratio .figure {
  font-size: 2.6rem;
}
.needs {
  list-style: none;
  margin: var(--s2) 0 0;
  padding: 0;
}
.needs li {
  display: grid;
  grid-template-columns: minmax(10rem, 2fr) 1fr 2fr;
  gap: var(--s3);
  padding: var(--s1) 0;
  border-top: 1px solid var(--line);
}
.needs .missing {
  color: var(--warm-ink);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.empty {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
@media (max-width: 43rem) {
  .needs li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
