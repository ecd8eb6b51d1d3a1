<script setup lang="ts">
/** A bag with its level, its doubt and what its spoon tests say. Usage: <BagLine :bag :plaster @change @test /> */
import { parseISO } from 'date-fns'
import Button from 'primevue/button'
import { computed, onMounted } from 'vue'
import { learnBag, propertiesOfCard, wantsSpoonTest } from '#core/stock'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useUnits } from '~/parts/show/useUnits'
import { KEEPING_WORDS, paceWords } from '~/parts/words/mix'
import { bagEvidence, bagStateOf, doubtOf } from '~/parts/plaster/plasterChoice'
import { counted } from '~/parts/show/counted'
import { dayText } from '~/parts/show/time'
import { useLearning } from '~/stores/learning'
import { useWorkshop } from '~/stores/workshop'
import type { BagCard, PlasterCard } from '~~/shared/stock'

const props = defineProps<{ bag: BagCard; plaster: PlasterCard }>()
const emit = defineEmits<{ change: []; test: [] }>()
const units = useUnits()
const now = useNowBy(MS_PER.min)

const share = computed(() => Math.min(1, props.bag.leftG / props.bag.boughtG))
const doubt = computed(() => doubtOf(props.bag, now.value))
const state = computed(() => bagStateOf(props.bag, now.value))
const learning = useLearning()
const shelf = useWorkshop()
onMounted(() => {
  if (props.bag.usedUp) return
  void learning.load(`bag:${props.bag.id}`)
  void learning.load(`scoop:${props.bag.id}`)
})
const evidence = computed(() =>
  bagEvidence(props.bag, { plasters: shelf.plasters, bags: shelf.bags, seenOf: learning.seenOf }, now.value),
)
const known = computed(() =>
  learnBag(propertiesOfCard(props.plaster.label), state.value, evidence.value, now.value),
)
/** Pours tell of it as well as a spoonful does. */
const wanted = computed(() => wantsSpoonTest(state.value, known.value.tests + known.value.pours))
const learnt = computed(() => {
  const { tests, pours, factor } = known.value
  // Where pours have shown it, they say so below.
  if (tests === 0 || pours > 0) return ''
  return `sets ${paceWords(factor)}, by ${tests === 1 ? 'a spoon test' : `${tests} spoon tests`}`
})
</script>

<template>
  <div class="bag" :class="{ up: bag.usedUp }">
    <svg viewBox="0 0 40 52" aria-hidden="true">
      <path d="M6 14 Q4 50 8 50 H32 Q36 50 34 14 Z" class="sack" />
      <clipPath :id="`bag-${bag.id}`"><path d="M6 14 Q4 50 8 50 H32 Q36 50 34 14 Z" /></clipPath>
      <rect
        x="0"
        :y="50 - 36 * share"
        width="40"
        :height="36 * share"
        class="powder"
        :clip-path="`url(#bag-${bag.id})`"
      />
      <path d="M6 14 Q4 50 8 50 H32 Q36 50 34 14 L30 6 Q20 10 10 6 Z" class="line" />
    </svg>
    <div>
      <p>
        <b>{{ bag.name }}</b>
        <template v-if="bag.usedUp"> · used up</template
        ><template v-else>
          · <b>{{ units.roughMass(bag.leftG) }}</b> of {{ units.roughMass(bag.boughtG) }} left</template
        >
      </p>
      <p class="soft">
        {{ bag.openedOn ? `open since ${dayText(parseISO(bag.openedOn).getTime(), now)}` : 'not opened' }},
        {{ KEEPING_WORDS[bag.keeping].toLowerCase()
        }}<template v-if="bag.scoop"
          >; a scoop of {{ units.volume(bag.scoop.measureMl) }} weighs
          {{ units.mass((bag.scoop.weighedKgM3 * bag.scoop.measureMl) / 1000) }}</template
        ><template v-if="learnt">; {{ learnt }}</template>
      </p>
      <p v-if="doubt !== 'none' && !bag.usedUp" class="doubt">
        {{ doubt === 'damp' ? 'Damp' : 'Old' }}:
        {{
          wanted
            ? 'slow or fast, nobody knows until a spoonful is tried.'
            : 'try a spoonful again before a large pour.'
        }}
      </p>
      <NuxtLink v-if="bag.pours > 0" :to="{ path: '/casts', query: { tags: `bag:${bag.id}` } }"
        >What it gave: {{ counted(bag.pours, 'pour') }}</NuxtLink
      >
    </div>
    <div class="acts">
      <Button
        v-if="!bag.usedUp"
        :severity="wanted ? undefined : 'secondary'"
        label="Spoon test"
        :aria-label="`Spoon test of ${bag.name}`"
        @click="emit('test')"
      />
      <Button
        severity="secondary"
        label="Change"
        :aria-label="`Change ${bag.name}`"
        @click="emit('change')"
      />
    </div>
    <div class="taught">
      <LearntNote :name="bag.name" :subject="`bag:${bag.id}`" factor="set_time" :known="known.learned" />
      <LearntNote :name="bag.name" :subject="`bag:${bag.id}`" factor="heat" />
      <LearntNote :name="bag.name" :subject="`scoop:${bag.id}`" factor="scoop_density" />
    </div>
  </div>
</template>

<style scoped>
.bag {
  display: grid;
  grid-template-columns: 2.6rem 1fr auto;
  gap: var(--s3);
  align-items: center;
  border-top: 1px solid var(--line);
  padding: var(--s2) 0;
}
.up {
  color: var(--ink-soft);
}
.sack {
  fill: #fff;
}
.powder {
  fill: #d9cdb4;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}
.doubt {
  color: var(--warm-ink);
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  justify-content: end;
}
.taught {
  grid-column: 1 / -1;
}
.taught:empty {
  display: none;
}
@media (max-width: 43rem) {
  .bag {
    grid-template-columns: 2.6rem 1fr;
  }
  .acts {
    grid-column: 2;
    justify-content: start;
  }
}
</style>
