<script setup lang="ts">
/**
 * The casts of a print, each measured when it was clean, beside the print: how much it grew, how far it spread.
 * Usage: <PrintCasts :mould-id :find :way @change="change" />
 */
import { computed } from 'vue'
import type { VolumeMethod } from '#core/mould'
import { usePhotos } from '~/stores/photos'
import { useUnits } from '~/parts/show/useUnits'
import type { Find } from '~~/shared/finds'
import { usePrintCasts } from '~/parts/field/usePrintCasts'
import { againstWords, castAgainst } from '~/parts/field/casts'

const props = defineProps<{
  mouldId: string
  find: Find
  way: Extract<VolumeMethod, { by: 'traced' }>
}>()
const emit = defineEmits<{ change: [said: Partial<Find>] }>()
const photos = usePhotos()
const units = useUnits()

const poured = usePrintCasts(props.mouldId)
const casts = computed(() =>
  poured.value.map((cast) => ({ ...cast, said: props.find.casts.find((c) => c.pourId === cast.record.id) })),
)
function say(pourId: string, measure: { lengthMm?: number | undefined; widthMm?: number | undefined }) {
  const known = props.find.casts.find((c) => c.pourId === pourId) ?? { pourId, lengthMm: null, widthMm: null }
  const next = {
    ...known,
    ...('lengthMm' in measure && { lengthMm: measure.lengthMm ?? null }),
    ...('widthMm' in measure && { widthMm: measure.widthMm ?? null }),
  }
  emit('change', { casts: [...props.find.casts.filter((c) => c.pourId !== pourId), next] })
}
const against = ({ record, said }: (typeof casts.value)[number]) =>
  said ? castAgainst(said, props.way, record.plan.plaster.properties.expansionPct).map(againstWords) : []
</script>

<template>
  <section v-if="casts.length > 0" class="slab casts" aria-labelledby="casts-title">
    <h2 id="casts-title">Its casts</h2>
    <article v-for="cast in casts" :key="cast.record.id">
      <NuxtLink :to="`/casts/${cast.record.id}`"><b>{{ cast.record.plan.piece }}</b></NuxtLink>
      <div v-if="cast.photos.length > 0" class="photos">
        <img
          v-for="p in cast.photos"
          :key="p"
          :src="photos.addressOf(p, 'thumb')"
          alt="The cast"
          loading="lazy"
        />
      </div>
      <div class="pair">
        <QuantityField
          :model-value="cast.said?.lengthMm ?? undefined"
          kind="length"
          label="The print on it, long"
          :min="1"
          :max="5000"
          optional
          @update:model-value="say(cast.record.id, { lengthMm: $event })"
        />
        <QuantityField
          :model-value="cast.said?.widthMm ?? undefined"
          kind="length"
          label="and wide"
          :min="1"
          :max="5000"
          optional
          @update:model-value="say(cast.record.id, { widthMm: $event })"
        />
      </div>
      <p v-for="line in against(cast)" :key="line" class="soft">{{ line }}</p>
      <p v-if="cast.said" class="soft small">
        Beside the print: {{ units.size(way.printLengthMm) }} long. Soil that stays on adds 1 to 3 mm.
      </p>
    </article>
  </section>
</template>

<style scoped>
.casts,
article {
  display: grid;
  gap: var(--s3);
}
.photos {
  display: flex;
  gap: var(--s2);
  overflow-x: auto;
}
.photos img {
  width: 9rem;
  height: 7rem;
  object-fit: cover;
  border-radius: 0.6rem;
}
</style>
