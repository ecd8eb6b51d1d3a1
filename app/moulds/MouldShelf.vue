<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { useKept } from '~/stores/kept'
import { computed } from 'vue'
import { MOULD_MATERIALS } from '#core/mould'
import { useWorkshop } from '~/stores/workshop'
import { counted } from '~/parts/show/counted'
import { MATERIAL_WORDS } from '~/parts/words/mould'
import { shelfOf, type ShelfQuery } from '~/parts/mould/shelf'

const workshop = useWorkshop()

const query = useKept<ShelfQuery>(
  'nine-ripples.shelf',
  { text: '', material: 'all', show: 'all', order: 'name' },
  { mergeDefaults: true },
)
const materials = computed(() => [
  { value: 'all', label: 'Every material' },
  ...MOULD_MATERIALS.filter((m) => workshop.moulds.some((c) => c.facts.material === m)).map((value) => ({
    value,
    label: MATERIAL_WORDS[value],
  })),
])
const SHOWS = [
  { value: 'all', label: 'All' },
  { value: 'spill', label: 'For leftovers' },
  { value: 'worn', label: 'Look at these' },
] as const
const ORDERS = [
  { value: 'name', label: 'by name' },
  { value: 'volume', label: 'largest first' },
  { value: 'casts', label: 'most cast first' },
  { value: 'last', label: 'last poured first' },
]
const found = computed(() => shelfOf(workshop.moulds, query.value))
const plasterName = (id: string | null) => workshop.plasters.find((p) => p.id === id)?.name
</script>

<template>
  <div class="page">
    <header>
      <h1>Moulds</h1>
      <NuxtLink class="p-button" to="/moulds/new">Describe a mould</NuxtLink>
    </header>
    <UnreadableCards :cards="workshop.unreadable.moulds" />
    <div v-if="workshop.moulds.length > 0" class="query">
      <label class="field"
        ><span>Search</span><InputText v-model="query.text" type="search" placeholder="name or note"
      /></label>
      <LabelledSelect v-model="query.material" label="Made of" :options="materials as never" />
      <LabelledSelect v-model="query.order" label="Order" :options="ORDERS as never" />
      <ChoicePills v-model="query.show" label="Which moulds" :options="SHOWS" />
    </div>
    <p v-if="workshop.moulds.length > 0" class="soft" role="status">
      {{ counted(found.length, 'mould') }}
    </p>
    <div v-if="found.length > 0" class="shelf">
      <MouldCardTile
        v-for="card in found"
        :key="card.id"
        :card="card"
        :plaster="plasterName(card.usualPlasterId)"
      />
    </div>
    <p v-else-if="workshop.moulds.length > 0" class="slab">No mould like that on the shelf.</p>
    <p v-else-if="workshop.mouldsFailed" class="slab" role="alert">
      The shelf cannot be fetched just now. It comes back as soon as the workshop answers.
    </p>
    <p v-else-if="!workshop.mouldsLoaded" class="slab">Fetching the shelf…</p>
    <div v-else class="slab empty">
      <h2>The shelf is empty</h2>
      <p>
        Describe the mould in front of you, by water, by a rule, or by drawing half of it: a minute, and every
        plan starts from it.
      </p>
      <NuxtLink class="p-button" to="/moulds/new">Describe a mould</NuxtLink>
    </div>
    <ShelfSets v-if="workshop.moulds.length > 0" />
    <section aria-labelledby="shelf-files" class="at-end">
      <h2 id="shelf-files">Files</h2>
      <ShelfFiles />
    </section>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: var(--s4);
}
.query {
  display: grid;
  grid-template-columns: minmax(10rem, 1.4fr) 1fr 1fr auto;
  gap: var(--s3);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.shelf {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(min(15rem, 100%), 1fr));
}
.empty,
.at-end {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
@media (max-width: 60rem) {
  .query {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
@media (max-width: 43rem) {
  .query {
    grid-template-columns: minmax(0, 1fr);
  }
  .shelf {
    grid-template-columns: repeat(auto-fill, minmax(min(9.5rem, 100%), 1fr));
  }
  .shelf :deep(.tile) {
    padding: var(--s3);
  }
}
</style>
