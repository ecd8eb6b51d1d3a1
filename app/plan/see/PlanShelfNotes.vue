<script setup lang="ts">
/**
 * What is wrong with the things that the plan takes off their shelf: a mould that will not let go or is worn, a bag that is
 * damp, old or runs out. Usage: <PlanShelfNotes :draft :powder-g />
 */
import { computed } from 'vue'
import { describeCavity, letsGo } from '#core/mould'
import { wantsSpoonTest } from '#core/stock'
import { wearOfCard } from '~/parts/mould/shelf'
import { bagStateOf, bagsOf, doubtOf } from '~/parts/plaster/plasterChoice'
import { counted } from '~/parts/show/counted'
import { useUnits } from '~/parts/show/useUnits'
import { LET_GO_WORDS, WEAR_WORDS } from '~/parts/words/mould'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useWorkshop } from '~/stores/workshop'
import type { PlanDraft } from '../draft/planDraft'

const props = defineProps<{
  draft: PlanDraft
  /** Plaster of the whole job, g. */
  powderG: number | undefined
}>()
const workshop = useWorkshop()
const units = useUnits()
const now = useNowBy(MS_PER.min)

const cardOf = (id: string) => workshop.moulds.find((m) => m.id === id)
const cards = computed(() => {
  const { source, shelfId, setId } = props.draft
  if (source === 'describe') return []
  const ids =
    source === 'set'
      ? (workshop.mouldSets.find((s) => s.id === setId)?.members ?? []).map((m) => m.mouldId)
      : [shelfId]
  return ids.flatMap((id) => cardOf(id) ?? [])
})
/** Moulds of this plan that want a look, or a successor, before they are filled again. */
const worn = computed(() =>
  cards.value.flatMap((card) => {
    const wear = wearOfCard(card)
    return wear && wear.advice !== 'fresh' ? [{ name: card.name, wear }] : []
  }),
)
/** What cannot come out whole is said at once, not on demand. */
const stuck = computed(() => {
  const { source, described } = props.draft
  const moulds = source === 'describe' ? [described] : cards.value
  const codes = moulds.flatMap(({ facts, volume }) => {
    const found = describeCavity(volume)
    return letsGo(facts, found.ok ? found.finding.undercutMm : undefined)
      .filter((l) => l.grade === 'stop')
      .map((l) => l.code)
  })
  return [...new Set(codes)].map((code) => LET_GO_WORDS[code])
})
const bag = computed(() =>
  bagsOf(props.draft.plasterKey, workshop.bags).find((b) => b.id === props.draft.bagId),
)
/** How much more than the bag holds still counts as slightly: then it is worth making do (common practice). */
const SLIGHTLY = 1.12
const runsOut = computed(() => {
  const [leftG, wantedG] = [bag.value?.leftG ?? Infinity, props.powderG ?? 0]
  if (wantedG <= leftG) return ''
  const says = `${units.roughMass(leftG)} is left in it, this job wants ${units.roughMass(wantedG)}`
  return wantedG <= SLIGHTLY * leftG
    ? `${says}: less spare, or a little more water, saves opening another.`
    : `${says}: another bag is needed.`
})
const doubt = computed(() => (bag.value ? doubtOf(bag.value, now.value) : 'none'))
const untested = computed(
  () => bag.value && wantsSpoonTest(bagStateOf(bag.value, now.value), bag.value.spoonTests.length),
)
</script>

<template>
  <p v-for="words in stuck" :key="words" class="note stop" role="status">{{ words }}</p>
  <p v-for="w in worn" :key="w.name" class="note">
    <b v-if="cards.length > 1">{{ w.name }}. </b>{{ WEAR_WORDS[w.wear.advice] }}:
    {{ counted(w.wear.casts, 'cast') }} so far, {{ Math.round(w.wear.life.low) }} to
    {{ Math.round(w.wear.life.high) }} is usual.
  </p>
  <p v-if="runsOut" class="note" role="status">{{ runsOut }}</p>
  <p v-if="doubt !== 'none'" class="note" role="status">
    {{ doubt === 'damp' ? 'This bag was damp' : 'This bag was open long' }}: it may set slow or fast.
    <NuxtLink v-if="untested" :to="{ path: '/plasters', query: { bag: draft.bagId } }"
      >Try a spoonful first</NuxtLink
    >
  </p>
</template>

<style scoped>
.note {
  padding: var(--s1) var(--s3);
  border-left: 6px solid var(--warm);
  border-radius: 0.5rem;
  background: var(--warm-light);
}
.stop {
  border-color: var(--hot);
  background: var(--hot-light);
  font-weight: 600;
}
</style>
