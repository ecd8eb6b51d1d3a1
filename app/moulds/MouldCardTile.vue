<script setup lang="ts">
/** One mould on the shelf, as a picture. Usage: <MouldCardTile :card="card" :plaster="name" /> */
import { useHeeds } from '~/stores/heeds'
import { lastText } from './words'
import { computed } from 'vue'
import { useUnits } from '~/parts/show/useUnits'
import { counted } from '~/parts/show/counted'
import { MATERIAL_WORDS, PURPOSE_WORDS, WEAR_WORDS } from '~/parts/words/mould'
import { pictured, sectionOf } from '~/parts/mould/ways'
import { castsOf, wearOfCard } from '~/parts/mould/shelf'
import type { MouldCard } from '~~/shared/moulds'

const props = defineProps<{ card: MouldCard; plaster: string | undefined }>()
const units = useUnits()
const heeds = useHeeds()
const wear = computed(() => wearOfCard(props.card))
const worn = computed(() => wear.value !== undefined && wear.value.advice !== 'fresh')
const casts = computed(() => {
  const count = castsOf(props.card)
  return count === 0 ? 'no casts yet' : counted(count, 'cast')
})
const range = computed(() => units.volumeRange(props.card.cavityMl, props.card.plusMinusMl))
const last = computed(() => props.card.history.last)
</script>

<template>
  <NuxtLink :to="`/moulds/${card.id}`" class="tile slab">
    <SectionPicture
      class="picture"
      :drawing="sectionOf(pictured(card.volume), card.cavityMl)"
      :material="card.facts.material"
      :label="`Section of ${card.name}`"
    />
    <span class="name">{{ card.name }}</span>
    <span class="volume"
      ><span class="figure">{{ range[0] }}</span> <span class="soft">± {{ range[1] }}</span></span
    >
    <span class="soft facts"
      >{{ MATERIAL_WORDS[card.facts.material] }} · {{ PURPOSE_WORDS[card.purpose].toLowerCase()
      }}<template v-if="card.isSpill"> · takes leftovers</template></span
    >
    <span class="facts">
      {{ casts
      }}<template v-if="last"> · last {{ lastText(last, heeds.causesIn(card.id, last.pourId)) }}</template>
    </span>
    <span v-if="plaster" class="soft facts">{{ plaster }}</span>
    <span v-if="worn && wear" class="worn">{{ WEAR_WORDS[wear.advice] }}</span>
  </NuxtLink>
</template>

<style scoped>
.tile {
  overflow-wrap: anywhere;
  display: grid;
  gap: var(--s1);
  padding: var(--s4);
  text-decoration: none;
  align-content: start;
}
.tile:hover {
  outline: 2px solid var(--line);
}
.picture {
  height: 9.5rem;
}
.name {
  font-weight: 700;
  font-size: 1.08rem;
  line-height: 1.2;
}
.volume {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--s2);
  white-space: nowrap;
}
.figure {
  font-size: 1.7rem;
}
.facts {
  font-size: 0.92rem;
}
.worn {
  justify-self: start;
  background: var(--warm-light);
  border-radius: 999px;
  padding: 0 var(--s3);
  font-weight: 600;
  font-size: 0.92rem;
}
</style>
