<script setup lang="ts">
/** A label for each bag that is packed: what is in it, the water it wants, and what it makes. */
import { computed } from 'vue'
import { usePack } from '~/parts/field/usePack'
import { plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'

const units = useUnits()
const { said, card, consistency, pack } = usePack()
const labels = computed(() =>
  (pack.value?.bags ?? []).flatMap((bag) =>
    Array.from({ length: bag.count }, (_, i) => ({ ...bag, n: i + 1 })),
  ),
)
const sizeOf = (i: number) => {
  const { lengthMm, widthMm, depthMm } = said.value.prints[i]!
  return [lengthMm, widthMm, depthMm].map((mm) => units.size(mm)).join(' × ')
}
</script>

<template>
  <PrintPage back="/field/pack" back-name="Back to packing">
    <h1>Labels for the bags</h1>
    <div class="labels">
      <section v-for="(label, i) in labels" :key="i" class="label">
        <p><b>{{ card?.name ?? 'Plaster of Paris' }}</b> · bag {{ label.n }} of {{ label.count }}</p>
        <p>In it <span class="figure">{{ units.mass(label.powderG) }}</span></p>
        <p>
          Water <span class="figure">{{ units.volume(label.waterMl) }}</span
          ><template v-if="label.caps !== null">
            = <span class="figure">{{ plain(label.caps, 1) }}</span> caps of
            {{ said.bottle || 'the bottle' }}</template
          >
        </p>
        <p>
          {{
            label.bagsACast > 1
              ? `${label.bagsACast} bags to a cast`
              : label.casts === 1
                ? 'One cast'
                : `${label.casts} casts`
          }}, {{ sizeOf(label.print) }} · {{ plain(consistency, 0) }} to 100
        </p>
        <p class="small">
          Dust: mask on to open. It burns: nobody’s hand in it. Not into a drain or a stream.
        </p>
      </section>
    </div>
  </PrintPage>
</template>

<style scoped>
.labels {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(16rem, 1fr));
}
.label {
  border: 2px solid var(--ink);
  border-radius: 0.6rem;
  padding: var(--s3);
  break-inside: avoid;
}
.figure {
  font-size: 1.6rem;
}
</style>
