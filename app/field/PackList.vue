<script setup lang="ts">
/** What to take along for prints of these sizes: bags weighed out, rings to cut, the rest to tick at the kerb. */
import { Plus, X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { FIELD_MIXES, PRINT_FORMS, type PackedBag, type PrintForm } from '#core/field'
import { FORM_WORDS } from '~/parts/mould/ways/traced'
import { plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { FIRST_SIZE, usePack } from '~/parts/field/usePack'
import { PACK_WORDS } from '~/parts/field/words'
import { useWorkshop } from '~/stores/workshop'

const workshop = useWorkshop()
const units = useUnits()
const { said, consistency, pack } = usePack()

const HOW = { bags: 'Each in its bag', jug: 'For all in a jug' } as const
const plasters = computed(() => [
  { value: '', label: 'Plaster of Paris, as its class' },
  ...workshop.plasters.map((p) => ({ value: p.id, label: p.name })),
])
const capMl = computed({
  get: () => said.value.capMl ?? undefined,
  set: (ml) => (said.value.capMl = ml ?? null),
})
const typedConsistency = computed({
  get: () => said.value.consistency || undefined,
  set: (c) => (said.value.consistency = c ?? 0),
})
const sizeOf = (i: number) => {
  const { lengthMm, widthMm, depthMm } = said.value.prints[i]!
  return [lengthMm, widthMm, depthMm].map((mm) => units.size(mm)).join(' × ')
}
const makes = (bag: PackedBag) =>
  bag.bagsACast > 1
    ? `${bag.bagsACast} of them to a cast`
    : bag.casts === 1
      ? 'one cast'
      : `${bag.casts} casts`
function tick(item: string) {
  const { ticked } = said.value
  said.value.ticked = ticked.includes(item) ? ticked.filter((t) => t !== item) : [...ticked, item]
}
</script>

<template>
  <div class="page">
    <header class="top">
      <h1>What to pack</h1>
      <nav class="acts" aria-label="Packing">
        <NuxtLink class="p-button p-button-secondary" to="/field/labels">Labels to print</NuxtLink>
        <NuxtLink class="p-button p-button-secondary" to="/field/sheet">Field sheet</NuxtLink>
      </nav>
    </header>
    <div class="columns">
      <section class="slab part" aria-labelledby="for-title">
        <h2 id="for-title">For these prints</h2>
        <fieldset v-for="(print, i) in said.prints" :key="i" class="print">
          <legend class="visually-hidden">Prints of size {{ i + 1 }}</legend>
          <div class="sizes">
            <QuantityField
              v-model="print.count"
              kind="number"
              label="How many"
              :min="1"
              :max="60"
              :decimals="0"
            />
            <QuantityField v-model="print.lengthMm" kind="length" label="Long" :min="10" :max="2000" />
            <QuantityField v-model="print.widthMm" kind="length" label="Wide" :min="10" :max="2000" />
            <QuantityField v-model="print.depthMm" kind="length" label="Deep" :min="1" :max="300" />
          </div>
          <div class="acts">
            <ChoicePills
              v-model="print.form"
              label="Their floor"
              :options="
                (Object.keys(PRINT_FORMS) as PrintForm[]).map((value) => ({
                  value,
                  label: FORM_WORDS[value],
                }))
              "
            />
            <button
              v-if="said.prints.length > 1"
              type="button"
              class="icon-button"
              :aria-label="`Leave size ${i + 1} out`"
              @click="said.prints.splice(i, 1)"
            >
              <X :size="20" />
            </button>
          </div>
        </fieldset>
        <Button
          v-if="said.prints.length < 8"
          severity="secondary"
          @click="said.prints.push({ ...FIRST_SIZE })"
          ><Plus :size="18" aria-hidden="true" /> Another size</Button
        >
        <div class="pair">
          <LabelledSelect v-model="said.plasterId" label="In" :options="plasters" />
          <QuantityField
            v-model="typedConsistency"
            kind="number"
            label="Water to 100"
            :suffix="`usually ${plain(consistency, 0)}`"
            :min="20"
            :max="120"
            optional
          />
          <QuantityField v-model="said.airTempC" kind="temp" label="Out there" :min="-10" :max="45" />
        </div>
        <LabelledPills
          v-model="said.how"
          label="Mixed"
          :options="FIELD_MIXES.map((value) => ({ value, label: HOW[value] }))"
        />
        <label class="tick-line"
          ><input v-model="said.isSoft" type="checkbox" /> The ground may be soft (25 mm of cover)</label
        >
        <div class="pair">
          <label class="field">
            <span>Water is found by the cap of</span>
            <InputText v-model="said.bottle" maxlength="60" placeholder="the blue bottle" />
          </label>
          <QuantityField v-model="capMl" kind="volume" label="One cap holds" :min="1" :max="500" optional />
        </div>
      </section>
      <div class="column">
        <section class="slab part" aria-labelledby="takes-title">
          <h2 id="takes-title">It takes</h2>
          <p v-if="!pack" class="failure" role="alert">A print so small holds less than can be mixed.</p>
          <template v-else>
            <dl class="figures">
              <div>
                <dt>Plaster</dt>
                <dd class="figure">{{ units.mass(pack.powderG) }}</dd>
              </div>
              <div>
                <dt>Water for it</dt>
                <dd class="figure">{{ units.volume(pack.waterMl) }}</dd>
              </div>
            </dl>
            <article v-for="(bag, i) in pack.bags" :key="i" class="bag">
              <p>
                <b class="figure">{{ bag.count }} ×</b> {{ said.how === 'jug' ? 'portion' : 'bag' }} of
                <b class="figure">{{ units.mass(bag.powderG) }}</b>
              </p>
              <p>
                Water to find: <b>{{ units.volume(bag.waterMl) }}</b
                ><template v-if="bag.caps !== null">
                  or <b>{{ plain(bag.caps, 1) }} caps</b> of {{ said.bottle || 'the bottle' }}</template
                >
              </p>
              <p class="soft">{{ makes(bag) }}, {{ sizeOf(bag.print) }}</p>
            </article>
            <h3>Rings</h3>
            <p v-for="(e, i) in pack.each" :key="`ring ${i}`">
              {{ said.prints[i]?.count }} ×
              <b>{{ units.size(e.ring.stripMm) }} × {{ units.size(e.ring.heightMm) }}</b>
              <span class="soft"> of card, for {{ sizeOf(i) }}, {{ units.size(e.coverMm) }} of cover</span>
            </p>
            <CautionNote id="dust" />
          </template>
        </section>
        <section v-if="pack" class="slab part" aria-labelledby="ticks-title">
          <h2 id="ticks-title">At the kerb</h2>
          <ul class="ticks">
            <li v-for="{ item, count } in pack.items" :key="item">
              <label class="tick-line">
                <input type="checkbox" :checked="said.ticked.includes(item)" @change="tick(item)" />
                {{ PACK_WORDS[item](count) }}
              </label>
            </li>
          </ul>
          <Button
            v-if="said.ticked.length > 0"
            severity="secondary"
            label="Begin anew"
            @click="said.ticked = []"
          />
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.top,
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s3);
  align-items: center;
}
.columns {
  display: grid;
  gap: var(--s4);
  grid-template-columns: repeat(auto-fit, minmax(min(24rem, 100%), 1fr));
  align-items: start;
}
.column {
  display: grid;
  gap: var(--s4);
  min-width: 0;
}
.part {
  display: grid;
  gap: var(--s3);
  min-width: 0;
}
.print {
  border: 0;
  border-bottom: 2px solid var(--line);
  margin: 0;
  padding: 0 0 var(--s3);
  display: grid;
  gap: var(--s2);
  min-width: 0;
}
.sizes {
  display: grid;
  gap: var(--s2);
  grid-template-columns: repeat(auto-fit, minmax(6.5rem, 1fr));
}
.figures {
  margin: 0;
  display: flex;
  gap: var(--s5);
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
  font-size: 1.9rem;
}
.bag {
  border-top: 2px solid var(--line);
  padding-top: var(--s2);
}
.bag .figure {
  font-size: 1.35rem;
}
.ticks {
  list-style: none;
  margin: 0;
  padding: 0;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
</style>
