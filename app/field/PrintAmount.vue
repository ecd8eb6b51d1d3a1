<script setup lang="ts">
/** What a print takes: depths by stick, its floor, the ring to cut, the plaster. Usage: <PrintAmount :find :way @change /> */
import { Plus, X } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { DEPTHS_ENOUGH, PRINT_FORMS, RING_CLEAR_MM, type PrintForm } from '#core/field'
import { findVolume, tracedPrint, type VolumeMethod } from '#core/mould'
import { FORM_WORDS } from '~/parts/mould/ways/traced'
import { useUnits } from '~/parts/show/useUnits'
import type { Find } from '~~/shared/finds'
import { ringOf, tracedSize } from '~/parts/field/derive'

const props = defineProps<{ find: Find; way: Extract<VolumeMethod, { by: 'traced' }> }>()
const emit = defineEmits<{ change: [said: Partial<Find>, form?: PrintForm] }>()
const units = useUnits()

const depthMm = ref<number | undefined>()
function addDepth() {
  if (depthMm.value === undefined) return
  emit('change', { depthsMm: [...props.find.depthsMm, depthMm.value] })
  depthMm.value = undefined
}
const isTraced = computed(() => tracedSize(props.find) !== undefined)
const print = computed(() => tracedPrint(props.way))
const ring = computed(() => ringOf(props.way))
const whole = computed(() => {
  const found = findVolume(props.way)
  return found.ok ? found.finding : undefined
})
const range = (volumeMl: number, plusMinusMl: number) => units.volumeRange(volumeMl, plusMinusMl).join(' ± ')
</script>

<template>
  <div class="amount">
    <div class="depths">
      <span v-for="(d, i) in find.depthsMm" :key="i" class="depth">
        {{ units.size(d) }}
        <button
          type="button"
          class="icon-button"
          :aria-label="`Take depth ${i + 1} away`"
          @click="emit('change', { depthsMm: find.depthsMm.filter((_, j) => j !== i) })"
        >
          <X :size="18" />
        </button>
      </span>
      <QuantityField
        v-model="depthMm"
        kind="length"
        label="Depth, by a stick"
        :min="1"
        :max="500"
        optional
        @keydown.enter="addDepth"
      />
      <Button severity="secondary" :disabled="depthMm === undefined" @click="addDepth">
        <Plus :size="18" aria-hidden="true" /> This one too
      </Button>
    </div>
    <p class="soft">
      {{
        find.depthsMm.length >= DEPTHS_ENOUGH
          ? 'Three places and more speak for its floor.'
          : find.depthsMm.length > 0
            ? 'The deepest counts; from three places on their mean does.'
            : `So far it is taken as ${units.size(way.printDepthMm)} deep, as it was guessed.`
      }}
    </p>
    <LabelledPills
      v-if="way.meanDepthMm === null"
      :model-value="way.form"
      label="Its floor"
      :options="
        (Object.keys(PRINT_FORMS) as PrintForm[]).map((value) => ({ value, label: FORM_WORDS[value] }))
      "
      @update:model-value="emit('change', {}, $event)"
    />
    <dl class="figures">
      <div>
        <dt>Holds itself</dt>
        <dd class="figure">{{ range(print.volumeMl, print.plusMinusMl) }}</dd>
      </div>
      <div v-if="whole">
        <dt>Plaster to mix, with {{ units.size(way.coverMm) }} of cover</dt>
        <dd class="figure">{{ range(whole.volumeMl, whole.plusMinusMl) }}</dd>
      </div>
      <div>
        <dt>Ring: cut a strip</dt>
        <dd class="figure">{{ units.size(ring.stripMm) }} × {{ units.size(ring.heightMm) }}</dd>
      </div>
    </dl>
    <p class="soft">
      {{
        isTraced
          ? 'By the outline that was traced.'
          : 'Until an outline is traced it is taken as an oval of the size that was guessed.'
      }}
      The ring stands {{ units.size(RING_CLEAR_MM) }} off its edge.
    </p>
  </div>
</template>

<style scoped>
.amount {
  display: grid;
  gap: var(--s3);
}
.depths {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: end;
}
.depth {
  display: inline-flex;
  align-items: center;
  font-weight: 700;
  padding-left: var(--s3);
  border: 2px solid var(--line);
  border-radius: 999px;
}
.figures {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3) var(--s5);
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
  font-size: 1.6rem;
}
</style>
