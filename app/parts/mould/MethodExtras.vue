<script setup lang="ts">
/** What a way of moulding asks for besides plaster: gel, coats, a key. Usage: <MethodExtras :method="method" /> */
import { computed } from 'vue'
import {
  TYPICAL_PARTS,
  findVolume,
  gelPlan,
  keyingOf,
  shellPlan,
  wantedCoverMm,
  type VolumeMethod,
} from '#core/mould'
import { PRINT_COVER_MM } from '#core/field'
import { waterFractionOfMould } from '#core/mix'
import { plasterProperties } from '#core/plaster'
import { useUnits } from '~/parts/show/useUnits'
import { counted } from '~/parts/show/counted'
import { KEYING_WORDS } from '~/parts/words/mould'

const props = defineProps<{ method: VolumeMethod }>()
const units = useUnits()
const ok = computed(() => findVolume(props.method).ok)

const gel = computed(() => (props.method.by === 'displacement' ? gelPlan(props.method) : undefined))
const typical = computed(() =>
  props.method.by === 'displacement' && props.method.object === 'typical'
    ? TYPICAL_PARTS[props.method.typical]
    : undefined,
)
/** Before a plaster is chosen the area rule is held against the common mix: pottery plaster at its usual consistency. */
const pottery = plasterProperties('pottery')
const shell = computed(() =>
  props.method.by === 'shell'
    ? shellPlan(props.method, waterFractionOfMould(pottery.useConsistency, pottery.particleDensityKgM3))
    : undefined,
)
const differencePct = computed(() =>
  shell.value
    ? Math.round((shell.value.ruleWaterMl / Math.max(1, shell.value.geometryWaterMl) - 1) * 100)
    : 0,
)
const keying = computed(() =>
  props.method.by === 'top_up' ? keyingOf(props.method.below).map((k) => KEYING_WORDS[k]) : [],
)
</script>

<template>
  <div v-if="ok && method.by === 'displacement' && gel" class="extras">
    <p>
      <b>Gel:</b> {{ units.roughVolume(gel.gelMl) }}. Water <b>{{ units.roughVolume(gel.waterMl) }}</b>,
      powder
      <b>{{
        'massG' in gel.powder
          ? units.mass(gel.powder.massG)
          : `${units.roughVolume(gel.powder.volumeMl)} loose`
      }}</b
      >. That makes {{ units.roughVolume(gel.makesMl.low) }} to {{ units.roughVolume(gel.makesMl.high) }}:
      many find that the powder adds nothing, up to a quarter more is said (common practice).
    </p>
    <p>
      {{ Math.round(gel.workS / 60) }} min to work. It feels set at 5–7 min; give it the full
      <b>15–20 min</b>. Fill it the same day: it shrinks.
    </p>
    <p v-if="typical">
      Usually {{ units.roughVolume(typical.low) }} to {{ units.roughVolume(typical.high) }}.
    </p>
    <CautionNote id="airway" />
  </div>
  <div v-else-if="ok && shell && method.by === 'shell'" class="extras">
    <p>
      <b>{{ counted(shell.layers, 'layer') }}</b> of {{ units.length(shell.layerMm) }},
      <b>{{ counted(shell.batches, 'bowl') }}</b> in all. Nowhere under
      {{ units.length(shell.thinnestMm) }} nor over {{ units.length(shell.thickestMm) }}.
      {{ units.length(65) }} is usual for an investment, {{ units.length(12) }} for a mother mould.
    </p>
    <p>
      Water by the area rule: <b>{{ units.roughVolume(shell.ruleWaterMl) }}</b>; by the form itself, at 70 :
      100, <b>{{ units.roughVolume(shell.geometryWaterMl) }}</b>. The rule takes
      {{ Math.abs(differencePct) }} % {{ differencePct >= 0 ? 'more' : 'less' }}:
      {{
        differencePct >= 0 ? 'spare, where the coat is flat' : 'it does not know the corners of a thick coat'
      }}.
    </p>
  </div>
  <p v-else-if="ok && keying.length > 0" class="extras">{{ keying.join(', ') }}.</p>
  <p v-else-if="ok && method.by === 'ground'" class="extras">
    Cover wanted here: <b>{{ units.length(wantedCoverMm(method)) }}</b> over the highest point ({{
      units.length(PRINT_COVER_MM.small)
    }}, or {{ units.length(PRINT_COVER_MM.large) }} where it is large or soft).
  </p>
</template>

<style scoped>
.extras {
  display: grid;
  gap: var(--s2);
}
</style>
