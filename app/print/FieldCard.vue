<script setup lang="ts">
/** A print and its casts on one page: photographs, where, what was measured, bars true to scale. Usage: <FieldCard :id /> */
import { computed } from 'vue'
import { measure, mmPerPixel } from '#core/field'
import { againstWords, castAgainst } from '~/parts/field/casts'
import { isScaled, wayOf } from '~/parts/field/derive'
import { measuredWords } from '~/parts/field/measures'
import { positionText } from '~/parts/field/position'
import { usePrintCasts } from '~/parts/field/usePrintCasts'
import { GROUND_NAMES, MARK_NAMES } from '~/parts/field/words'
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
const BAR_MM = 50
/** On its photograph, true where its scale lies; none where it was never scaled. */
const scaled = computed(() => {
  const shot = find.value?.shots.find((s) => s.photoId === picture.value?.id)
  const mmPx = shot && isScaled(shot) ? mmPerPixel(shot) : undefined
  return shot && mmPx ? { ...shot, barPx: BAR_MM / mmPx } : undefined
})
const marks = computed(() =>
  (find.value?.shots ?? []).filter(isScaled).flatMap((shot) =>
    shot.marks.flatMap((m) => {
      const found = measure(shot, m)
      return found.ok
        ? [{ name: m.name || MARK_NAMES[m.kind], words: measuredWords(found.measured, units) }]
        : []
    }),
  ),
)
const casts = usePrintCasts(id)
const poured = computed(() =>
  casts.value.map(({ record, photos: taken }) => {
    const said = find.value?.casts.find((c) => c.pourId === record.id)
    const { expansionPct } = record.plan.plaster.properties
    return {
      id: record.id,
      piece: record.plan.piece,
      at: momentText(record.createdAtMs, 0),
      photo: taken.at(-1),
      size: [said?.lengthMm, said?.widthMm].flatMap((mm) => (mm ? [units.size(mm)] : [])).join(' × '),
      against: said && way.value ? castAgainst(said, way.value, expansionPct).map(againstWords) : [],
    }
  }),
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
      <svg
        v-if="picture && scaled"
        class="photo"
        :viewBox="`0 0 ${scaled.widthPx} ${scaled.heightPx}`"
        role="img"
        :aria-label="`The print, with a bar of ${BAR_MM} mm`"
      >
        <image :href="photos.addressOf(picture.id)" :width="scaled.widthPx" :height="scaled.heightPx" />
        <g :transform="`translate(${scaled.widthPx * 0.04} ${scaled.heightPx * 0.95})`">
          <rect :width="scaled.barPx" :height="scaled.heightPx * 0.02" class="on" />
          <rect :width="scaled.barPx / 2" :height="scaled.heightPx * 0.02" class="half" />
          <text :y="-scaled.heightPx * 0.015" :font-size="scaled.heightPx * 0.045">{{ BAR_MM }} mm</text>
        </g>
      </svg>
      <img v-else-if="picture" :src="photos.addressOf(picture.id)" alt="The print" />
      <p v-if="scaled" class="small">The bar is true where the scale lies, in the plane of the ground.</p>
      <dl>
        <template v-if="way">
          <dt>At its longest</dt>
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
      <template v-if="poured.length > 0">
        <h2>{{ poured.length > 1 ? 'Its casts' : 'Its cast' }}</h2>
        <section v-for="c in poured" :key="c.id" class="cast">
          <img v-if="c.photo" :src="photos.addressOf(c.photo)" alt="The cast" />
          <div>
            <p><b>{{ c.piece }}</b>, {{ c.at }}</p>
            <p v-if="c.size">The print on it: {{ c.size }}</p>
            <p v-for="line in c.against" :key="line">{{ line }}</p>
          </div>
        </section>
      </template>
      <div class="bar" aria-hidden="true" />
      <p class="small">The bar is 50 mm where this is printed at its own size.</p>
    </template>
    <h1 v-else>No such print here</h1>
  </PrintPage>
</template>

<style scoped>
.photo {
  display: block;
  width: 100%;
  max-height: 110mm;
}
.on {
  fill: #ffffff;
  stroke: #000000;
  stroke-width: 0.1%;
}
.half {
  fill: #000000;
}
text {
  fill: #ffffff;
  stroke: #000000;
  stroke-width: 0.15%;
  paint-order: stroke;
  font-weight: 700;
}
.cast {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
  gap: var(--s3);
  break-inside: avoid;
}
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
