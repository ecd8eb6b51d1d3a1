<script setup lang="ts">
/** Which plaster it was really made of, one press each: bags first. Usage: <PlasterWas v-model="open" :plan @record="put" /> */
import { computed } from 'vue'
import { PLASTER_CLASS_IDS } from '#core/plaster'
import type { EventBody, PourPlan } from '#core/pour'
import { bagsOf, plasterOf } from '~/parts/plaster/plasterChoice'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useLearning } from '~/stores/learning'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{ plan: PourPlan }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [body: EventBody] }>()
const workshop = useWorkshop()
const learning = useLearning()
const now = useNowBy(MS_PER.min)

const shelf = computed(() => ({ plasters: workshop.plasters, bags: workshop.bags, seenOf: learning.seenOf }))
const choices = computed(() => [
  ...workshop.plasters.flatMap((card) => [
    ...bagsOf(card.id, workshop.bags).map((bag) => ({
      key: bag.id,
      label: `${bag.name}, ${card.name}`,
      plasterKey: card.id,
      bagId: bag.id,
    })),
    { key: card.id, label: card.name, plasterKey: card.id, bagId: '' },
  ]),
  ...PLASTER_CLASS_IDS.map((id) => ({
    key: id,
    label: PLASTER_CLASS_WORDS[id],
    plasterKey: `class:${id}`,
    bagId: '',
  })),
])
async function choose({ plasterKey, bagId }: { plasterKey: string; bagId: string }) {
  if (bagId) await learning.load(`bag:${bagId}`)
  const { additions = [] } = props.plan.plaster
  const plaster = plasterOf({ plasterKey, bagId, additions, water: props.plan.water }, shelf.value, now.value)
  if (plaster) emit('record', { type: 'plaster_was', plaster })
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" title="It was made of">
    <ul>
      <li v-for="choice in choices" :key="choice.key">
        <button type="button" class="ghost" @click="choose(choice)">{{ choice.label }}</button>
      </li>
    </ul>
  </SheetDialog>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
}
button {
  width: 100%;
  text-align: left;
}
</style>
