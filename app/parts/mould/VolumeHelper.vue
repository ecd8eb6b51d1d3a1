<script setup lang="ts">
/**
 * Finds what a mould holds by whichever way suits it: a picture that fills as figures are typed. Parts add up, cores
 * come off, and a second way can check the first.
 * Usage: <VolumeHelper v-model="volume" :material="facts.material" @problem="(field, message) => …" />
 */
import { Plus, Trash } from '@lucide/vue'
import Button from 'primevue/button'
import { computed } from 'vue'
import {
  describeCavity,
  findVolume,
  type CavityDescription,
  type MouldMaterial,
  type VolumeMethod,
} from '#core/mould'
import { useUnits } from '~/parts/show/useUnits'
import { useVolumeParts } from './useVolumeParts'
import { NOTE_WORDS, VOLUME_ISSUE_WORDS } from '~/parts/words/mould'
import { sectionOf, shownWay } from './ways'
import { shapeOptions } from './ways/shape'

const props = defineProps<{ material: MouldMaterial }>()
const volume = defineModel<CavityDescription>({ required: true })
const emit = defineEmits<{
  problem: [field: string, message: string]
  /** Another way was chosen for the first part: it tells what the mould probably is. */
  way: [method: VolumeMethod]
}>()
const units = useUnits()

const {
  slot,
  method,
  putVolume,
  putMethod,
  putPart,
  chooseWay,
  chooseShape,
  note,
  addPart,
  removeSlot,
  addCheck,
} = useVolumeParts(volume, {
  way: (chosen) => emit('way', chosen),
  problem: (field, message) => emit('problem', field, message),
})

const own = computed(() => findVolume(method.value))
const whole = computed(() => describeCavity(volume.value))
const drawing = computed(() => sectionOf(method.value, own.value.ok ? own.value.finding.volumeMl : 1000))
const ownIssues = computed(() => own.value.issues)
const faultAt = computed<[number, number] | undefined>(() => {
  const at = ownIssues.value.find(
    (i) => i.code === 'profile_crosses_itself' || i.code === 'inner_outside_outer',
  )
  return at && [at.limit, at.actual]
})
const several = computed(() => volume.value.parts.length > 1 || volume.value.check !== null)

const parts = computed(() =>
  volume.value.parts.map((part) => {
    const result = findVolume(part.method)
    const ml = result.ok ? units.volume(result.finding.volumeMl) : '?'
    const times = part.count > 1 ? `${part.count} × ` : ''
    return { sign: part.role === 'add' ? '+' : '−', label: `${times}${labelOf(part.method)}`, ml }
  }),
)
function labelOf(m: VolumeMethod): string {
  return m.by === 'shape' ? shapeOptions.find((s) => s.value === m.shape.kind)!.label : shownWay(m).name
}
const checkMl = computed(() => {
  if (!volume.value.check) return ''
  const result = findVolume(volume.value.check)
  return result.ok ? units.volume(result.finding.volumeMl) : '?'
})
const pictureLabel = computed(() => {
  const found = own.value.ok ? `, ${units.volume(own.value.finding.volumeMl)}` : ''
  return `Section: ${labelOf(method.value)}${found}`
})
</script>

<template>
  <div class="helper">
    <VolumeWays :by="method.by" @choose="chooseWay" />
    <div v-if="several" class="parts" role="group" aria-label="Parts">
      <button
        v-for="(part, i) in parts"
        :key="i"
        type="button"
        class="part"
        :aria-pressed="slot === i"
        @click="slot = i"
      >
        <b>{{ part.sign }}</b> {{ part.label }} <span class="soft">{{ part.ml }}</span>
      </button>
      <button
        v-if="volume.check"
        type="button"
        class="part"
        :aria-pressed="slot === 'check'"
        @click="slot = 'check'"
      >
        <b>≟</b> {{ labelOf(volume.check) }} <span class="soft">{{ checkMl }}</span>
      </button>
    </div>
    <p class="soft how">{{ shownWay(method).how }}</p>
    <ChoicePills
      v-if="method.by === 'shape'"
      :model-value="method.shape.kind"
      label="Its form"
      :options="shapeOptions"
      @update:model-value="chooseShape($event)"
    />
    <div class="bench" :class="{ board: method.by === 'profile' }">
      <SectionPicture
        v-if="method.by !== 'profile'"
        class="picture"
        :drawing="drawing"
        :material="props.material"
        :label="pictureLabel"
        dimensions
      />
      <ProfileBoard
        v-if="method.by === 'profile'"
        :model-value="method"
        :fault-at="faultAt"
        @update:model-value="putMethod($event)"
        @problem="note"
      />
      <MethodFields v-else :model-value="method" @update:model-value="putMethod($event)" @problem="note" />
    </div>
    <p v-for="issue in ownIssues" :key="issue.code" class="issue" :class="issue.severity" role="status">
      {{ VOLUME_ISSUE_WORDS[issue.code](issue.actual, issue.limit, units) }}
    </p>
    <MethodExtras :method="method" />
    <div v-if="typeof slot === 'number' && several" class="slot-tools">
      <QuantityField
        :key="slot"
        class="short"
        :model-value="volume.parts[slot]?.count"
        kind="number"
        :decimals="0"
        label="How many"
        :min="1"
        :max="100"
        @update:model-value="putPart(slot as number, { count: Math.round($event ?? 1) })"
        @problem="note('count', $event)"
      />
      <Button v-if="volume.parts.length > 1" severity="secondary" @click="removeSlot"
        ><Trash :size="18" aria-hidden="true" />Remove this part</Button
      >
    </div>
    <div v-if="slot === 'check'" class="slot-tools">
      <Button severity="secondary" @click="removeSlot"
        ><Trash :size="18" aria-hidden="true" />Remove the check</Button
      >
    </div>

    <QuantityField
      class="short"
      :model-value="volume.cavities"
      kind="number"
      :decimals="0"
      label="Cavities of this size"
      :min="1"
      :max="200"
      @update:model-value="putVolume({ cavities: Math.round($event ?? 1) })"
      @problem="note('cavities', $event)"
    />
    <VolumeTotal :volume="volume" :own-ok="own.ok" @trust="putVolume({ trust: $event })" />
    <details>
      <summary>Parts, a second way, and how sure this is</summary>
      <div class="more">
        <div class="adders">
          <Button severity="secondary" @click="addPart('add')"
            ><Plus :size="18" aria-hidden="true" />Add a part</Button
          >
          <Button severity="secondary" @click="addPart('subtract')">Take a part off</Button>
          <Button v-if="!volume.check" severity="secondary" @click="addCheck">Check it another way</Button>
        </div>
        <ul v-if="whole.ok" class="notes">
          <li>The range holds the truth four times in five.</li>
          <li v-for="n in whole.finding.notes" :key="n">{{ NOTE_WORDS[n] }}</li>
        </ul>
      </div>
    </details>
  </div>
</template>

<style scoped>
.helper {
  display: grid;
  gap: var(--s3);
  min-width: 0;
}
.part {
  border: 2px solid var(--line);
  background: transparent;
  color: var(--ink);
  font-weight: 600;
  cursor: pointer;
}
.part[aria-pressed='true'] {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--plaster);
}
.part[aria-pressed='true'] .soft {
  color: inherit;
}
.parts,
.adders,
.slot-tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: end;
}
.part {
  min-height: 44px;
  padding: 0 var(--s3);
  border-radius: 999px;
}
.bench {
  display: grid;
  gap: var(--s3);
  grid-template-columns: minmax(0, 1fr);
}
.picture {
  height: clamp(11rem, 28vh, 16rem);
  background: var(--chalk);
  border-radius: 0.9rem;
  padding: var(--s2);
}
.short {
  max-width: 9rem;
}
.issue {
  border-radius: 0.6rem;
  padding: var(--s2) var(--s3);
  font-weight: 600;
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
}
.issue.error {
  background: var(--hot-light);
  border-left-color: var(--hot);
}
.more {
  display: grid;
  gap: var(--s3);
  padding-top: var(--s3);
}
.notes {
  margin: 0;
  padding-left: 1.2rem;
}
summary {
  cursor: pointer;
  min-height: 44px;
  display: list-item;
  padding-top: var(--s2);
  font-weight: 600;
}
</style>
