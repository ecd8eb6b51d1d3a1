<script setup lang="ts">
/** A print on one page: photograph, where, what was measured, a bar true to scale. Usage: <FieldCard :id /> */
import { computed } from 'vue'
import { measure } from '#core/field'
import { isScaled, wayOf } from '~/parts/field/derive'
import { positionText } from '~/parts/field/position'
import { GROUND_NAMES, MARK_NAMES } from '~/parts/field/words'
import { plain } from '~/parts/show/figures'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { usePhotos } from '~/stores/photos'
import { useWorkshop } from '~/stores/workshop'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const photos = usePhotos()
const units = useUnits()
const card = computed(() => workshop.moulds.find((m) => m.id === id))
const find = computed(() => card.value?.find ?? undefined)
const way = computed(() => card.value && wayOf(card.value))
const picture = computed(() => card.value && photos.ofMould(id, card.value.photos)[0])
const marks = computed(() =>
  (find.value?.shots ?? []).filter(isScaled).flatMap((shot) =>
    shot.marks.flatMap((m) => {
      const found = measure(shot, m)
      if (!found.ok) return []
      const { value, plusMinus, unit } = found.measured
      const words =
        unit === 'deg'
          ? `${plain(value, 0)}° ± ${plain(plusMinus, 0)}°`
          : `${plain(value, 1)} ± ${plain(plusMinus, 1)} mm`
      return [{ name: m.name || MARK_NAMES[m.kind], words }]
    }),
  ),
)
</script>

<template>
  <PrintPage :back="`/field/prints/${id}`" back-name="Back to the print">
    <template v-if="card && find">
      <h1>{{ card.name }}</h1>
      <p>
        {{ GROUND_NAMES[find.ground] }} · found {{ momentText(find.foundAtMs, 0)
        }}<template v-if="find.place"> · {{ find.place }}</template>
      </p>
      <p v-if="find.position">{{ positionText(find.position) }} (WGS 84)</p>
      <img v-if="picture" :src="photos.addressOf(picture.id)" alt="The print" />
      <dl>
        <template v-if="way">
          <dt>Length</dt>
          <dd>{{ units.size(way.printLengthMm) }}</dd>
          <dt>Area</dt>
          <dd>{{ units.area(way.areaMm2) }}</dd>
          <dt>Deepest</dt>
          <dd>{{ units.size(way.printDepthMm) }}</dd>
        </template>
        <template v-for="(m, i) in marks" :key="i">
          <dt>{{ m.name }}</dt>
          <dd>{{ m.words }}</dd>
        </template>
        <template v-if="find.weather">
          <dt>Weather</dt>
          <dd>{{ find.weather }}</dd>
        </template>
      </dl>
      <div class="bar" aria-hidden="true" />
      <p class="small">The bar is 50 mm where this is printed at its own size.</p>
    </template>
    <h1 v-else>No such print here</h1>
  </PrintPage>
</template>

<style scoped>
img {
  max-width: 100%;
  max-height: 110mm;
  border-radius: 0.4rem;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: var(--s1) var(--s4);
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
}
.bar {
  width: 50mm;
  height: 4mm;
  background: repeating-linear-gradient(90deg, var(--ink) 0 10mm, transparent 10mm 20mm);
  border: 1.5px solid var(--ink);
}
</style>
