<script setup lang="ts">
/**
 * The casts of a print, each measured when it was clean, beside the print: how much it grew, how far it spread.
 * Usage: <PrintCasts :mould-id :find :way @change="change" />
 */
import { computed } from 'vue'
import type { VolumeMethod } from '#core/mould'
import { usePours } from '~/stores/pours'
import { plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import type { Find } from '~~/shared/finds'
import { castAgainst, photosOfPour } from '~/parts/field/casts'

const props = defineProps<{
  mouldId: string
  find: Find
  way: Extract<VolumeMethod, { by: 'traced' }>
}>()
const emit = defineEmits<{ change: [said: Partial<Find>] }>()
const pours = usePours()
const units = useUnits()

const casts = computed(() =>
  [...pours.records.values()]
    .filter((r) => r.plan.mould.members?.some((m) => m.mouldId === props.mouldId))
    .map((record) => ({
      record,
      said: props.find.casts.find((c) => c.pourId === record.id),
      photos: photosOfPour(pours.factsOf(record)),
    })),
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
const against = (pourId: string) => {
  const cast = props.find.casts.find((c) => c.pourId === pourId)
  const record = pours.records.get(pourId)
  return cast && record
    ? castAgainst(cast, props.way, record.plan.plaster.properties.expansionPct).map(
        ({ what, byMm, byPct, expectedMm }) =>
          `${what === 'length' ? 'Grew by' : 'Spread by'} ${plain(byMm, 1)} mm (${plain(byPct, 1)} %); its setting alone would make ${plain(expectedMm, 1)} mm.`,
      )
    : []
}
</script>

<template>
  <section v-if="casts.length > 0" class="slab casts" aria-labelledby="casts-title">
    <h2 id="casts-title">Its casts</h2>
    <article v-for="{ record, said, photos } in casts" :key="record.id">
      <NuxtLink :to="`/casts/${record.id}`"><b>{{ record.plan.piece }}</b></NuxtLink>
      <div v-if="photos.length > 0" class="photos">
        <img
          v-for="p in photos"
          :key="p"
          :src="`/api/photos/${p}?size=thumb`"
          alt="The cast"
          loading="lazy"
        />
      </div>
      <div class="pair">
        <QuantityField
          :model-value="said?.lengthMm ?? undefined"
          kind="length"
          label="The print on it, long"
          :min="1"
          :max="5000"
          optional
          @update:model-value="say(record.id, { lengthMm: $event })"
        />
        <QuantityField
          :model-value="said?.widthMm ?? undefined"
          kind="length"
          label="and wide"
          :min="1"
          :max="5000"
          optional
          @update:model-value="say(record.id, { widthMm: $event })"
        />
      </div>
      <p v-for="line in against(record.id)" :key="line" class="soft">{{ line }}</p>
      <p v-if="said" class="soft small">
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
