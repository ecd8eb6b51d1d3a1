<script setup lang="ts">
/**
 * Finds what a mould holds by whichever way suits it: a picture that fills as figures are typed. Parts add up, cores
 * come off, and a second way can check the first.
 * Usage: <VolumeHelper v-model="volume" :material="facts.material" @problem="(field, message) => …" />
 */
import {
  Box,
  CircleDot,
  Droplets,
  Footprints,
  Hand,
  Layers2,
  PencilRuler,
  Plus,
  Scale,
  Spline,
  Trash2,
  Wheat,
} from '@lucide/vue'
import Button from 'primevue/button'
import { computed, markRaw, ref, watch, type Component } from 'vue'
import {
  VOLUME_METHODS,
  describeCavity,
  findVolume,
  type CavityDescription,
  type CavityPart,
  type CavityShape,
  type MouldMaterial,
  type VolumeMethod,
} from '#core/mould'
import { useUnits } from '~/composables/useUnits'
import { FIRST_METHODS, FIRST_SHAPES, shapeOptions } from '~/utils/methodFields'
import { METHOD_WORDS, NOTE_WORDS, VOLUME_ISSUE_WORDS } from '~/utils/mouldWords'
import { sectionOf } from '~/utils/section'
import { provenanceWords } from '~/utils/words'

const props = defineProps<{ material: MouldMaterial }>()
const volume = defineModel<CavityDescription>({ required: true })
const emit = defineEmits<{
  problem: [field: string, message: string]
  /** Another way was chosen for the first part: it tells what the mould probably is. */
  way: [method: VolumeMethod]
}>()
const units = useUnits()

const ICONS: Record<VolumeMethod['by'], Component> = {
  water_fill: Droplets,
  dry_fill: Wheat,
  shape: Box,
  profile: Spline,
  ground: Footprints,
  displacement: Hand,
  shell: CircleDot,
  top_up: Layers2,
  weighed_cast: Scale,
  known: PencilRuler,
}

/** The part in hand; `check` is the second way. */
const slot = ref<number | 'check'>(0)
watch(
  () => [volume.value.parts.length, volume.value.check === null] as const,
  ([parts, noCheck]) => {
    if ((slot.value === 'check' && noCheck) || (typeof slot.value === 'number' && slot.value >= parts))
      slot.value = 0
  },
)
const method = computed<VolumeMethod>(() =>
  slot.value === 'check' && volume.value.check
    ? volume.value.check
    : (volume.value.parts[typeof slot.value === 'number' ? slot.value : 0] ?? volume.value.parts[0]!).method,
)
/**
 * A description is a value: replaced, never changed. Kept out of Vue's proxies, for the models read each of its numbers
 * many times on every move of a hand.
 */
function putVolume(change: Partial<CavityDescription>) {
  volume.value = markRaw({ ...volume.value, ...change })
}
function putMethod(next: VolumeMethod) {
  if (slot.value === 'check') putVolume({ check: next })
  else putPart(slot.value, { method: next })
}
function putPart(index: number, change: Partial<CavityPart>) {
  const parts = volume.value.parts.map((p, i) => (i === index ? { ...p, ...change } : p))
  putVolume({ parts })
}

// What was typed for another way or form is still there when one comes back to it.
const typedBefore = new Map<string, VolumeMethod>()
const keyOf = (m: VolumeMethod) => `${slot.value}.${m.by}${m.by === 'shape' ? `.${m.shape.kind}` : ''}`
function chooseWay(by: VolumeMethod['by']) {
  if (by === method.value.by) return
  typedBefore.set(keyOf(method.value), method.value)
  typedBefore.set(`${slot.value}.${method.value.by}`, method.value)
  clearProblems()
  putMethod(typedBefore.get(`${slot.value}.${by}`) ?? FIRST_METHODS[by])
  if (slot.value === 0) emit('way', method.value)
}
function chooseShape(kind: CavityShape['kind']) {
  typedBefore.set(keyOf(method.value), method.value)
  clearProblems()
  putMethod(typedBefore.get(`${slot.value}.shape.${kind}`) ?? { by: 'shape', shape: FIRST_SHAPES[kind] })
  if (slot.value === 0) emit('way', method.value)
}

const problems = new Map<string, string>()
function note(field: string, message: string) {
  problems.set(field, message)
  emit('problem', `volume.${field}`, message)
}
/** A field that is no longer on the page cannot stand in the way. */
function clearProblems() {
  for (const field of problems.keys()) emit('problem', `volume.${field}`, '')
  problems.clear()
}
watch(slot, clearProblems)

function addPart(role: CavityPart['role']) {
  const added: CavityPart = { role, count: 1, method: { by: 'shape', shape: FIRST_SHAPES.cylinder } }
  slot.value = volume.value.parts.length
  putVolume({ parts: [...volume.value.parts, added] })
}
function removeSlot() {
  if (slot.value === 'check') putVolume({ check: null, trust: 'parts' })
  else putVolume({ parts: volume.value.parts.filter((_, i) => i !== slot.value) })
  slot.value = 0
}
function addCheck() {
  const by = volume.value.parts.some((p) => p.method.by === 'water_fill') ? 'shape' : 'water_fill'
  putVolume({ check: FIRST_METHODS[by] })
  slot.value = 'check'
}

const own = computed(() => findVolume(method.value))
const whole = computed(() => describeCavity(volume.value))
const drawing = computed(() => sectionOf(method.value, own.value.ok ? own.value.finding.volumeMl : 1000))
const ownIssues = computed(() => own.value.issues)
const wholeIssues = computed(() =>
  whole.value.issues.filter((i) => i.path === 'parts' || i.code === 'methods_disagree'),
)
/** Another part has something wrong; say where to look. */
const elsewhere = computed(() =>
  whole.value.ok || !own.value.ok ? undefined : whole.value.issues.find((i) => i.severity === 'error'),
)
const faultAt = computed<[number, number] | undefined>(() => {
  const at = ownIssues.value.find(
    (i) => i.code === 'profile_crosses_itself' || i.code === 'inner_outside_outer',
  )
  return at && [at.limit, at.actual]
})
const range = computed(() =>
  whole.value.ok
    ? units.volumeRange(whole.value.finding.volumeMl, whole.value.finding.plusMinusMl)
    : ['', ''],
)
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
  return m.by === 'shape'
    ? shapeOptions.find((s) => s.value === m.shape.kind)!.label
    : METHOD_WORDS[m.by].name
}
const checkMl = computed(() => {
  if (!volume.value.check) return ''
  const result = findVolume(volume.value.check)
  return result.ok ? units.volume(result.finding.volumeMl) : '?'
})
const TRUST = [
  { value: 'parts', label: 'The first' },
  { value: 'check', label: 'The second' },
  { value: 'both', label: 'Both, weighed' },
] as const
const pictureLabel = computed(() => {
  const found = own.value.ok ? `, ${units.volume(own.value.finding.volumeMl)}` : ''
  return `Section: ${labelOf(method.value)}${found}`
})
</script>

<template>
  <div class="helper">
    <div class="ways" role="group" aria-label="How the volume is found">
      <button
        v-for="by in VOLUME_METHODS"
        :key="by"
        type="button"
        class="way"
        :aria-pressed="method.by === by"
        @click="chooseWay(by)"
      >
        <component :is="ICONS[by]" :size="22" aria-hidden="true" />{{ METHOD_WORDS[by].name }}
      </button>
    </div>
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
    <p class="soft how">{{ METHOD_WORDS[method.by].how }}</p>
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
        ><Trash2 :size="18" aria-hidden="true" />Remove this part</Button
      >
    </div>
    <div v-if="slot === 'check'" class="slot-tools">
      <Button severity="secondary" @click="removeSlot"
        ><Trash2 :size="18" aria-hidden="true" />Remove the check</Button
      >
    </div>

    <div class="total" aria-live="polite">
      <p v-if="whole.ok" class="holds">
        Holds
        <span class="figure" data-testid="holds">{{ range[0] }}</span>
        <span class="soft">± {{ range[1] }} · {{ provenanceWords(whole.finding.provenance) }}</span>
      </p>
      <p v-else class="holds soft">
        {{ elsewhere ? 'Another part needs a look before this adds up.' : 'No volume yet.' }}
      </p>
      <p v-for="issue in wholeIssues" :key="issue.code" class="issue" :class="issue.severity" role="status">
        {{ VOLUME_ISSUE_WORDS[issue.code](issue.actual, issue.limit, units) }}
      </p>
      <div v-if="volume.check" class="trust">
        <span class="label" aria-hidden="true">Go by</span>
        <ChoicePills
          :model-value="volume.trust"
          label="Which figure to go by"
          :options="TRUST"
          @update:model-value="putVolume({ trust: $event })"
        />
      </div>
    </div>
    <details>
      <summary>Parts, cavities, a second way, and how sure this is</summary>
      <div class="more">
        <div class="adders">
          <Button severity="secondary" @click="addPart('add')"
            ><Plus :size="18" aria-hidden="true" />Add a part</Button
          >
          <Button severity="secondary" @click="addPart('subtract')">Take a part off</Button>
          <Button v-if="!volume.check" severity="secondary" @click="addCheck">Check it another way</Button>
        </div>
        <QuantityField
          class="short"
          :model-value="volume.cavities"
          kind="number"
          :decimals="0"
          label="Cavities like this"
          :min="1"
          :max="200"
          @update:model-value="putVolume({ cavities: Math.round($event ?? 1) })"
          @problem="note('cavities', $event)"
        />
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
.ways {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: var(--s1);
}
.way,
.part {
  border: 2px solid var(--line);
  background: transparent;
  color: var(--ink);
  font-weight: 600;
  cursor: pointer;
}
.way {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 2px;
  min-height: 4.2rem;
  padding: var(--s1);
  border-radius: 0.9rem;
  font-size: 0.84rem;
  line-height: 1.1;
  text-align: center;
}
.way[aria-pressed='true'],
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
.slot-tools,
.trust {
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
.holds {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s2);
}
.holds .figure {
  font-size: 1.9rem;
}
.total,
.more {
  display: grid;
  gap: var(--s2);
}
.more {
  gap: var(--s3);
  padding-top: var(--s3);
}
.trust {
  align-items: center;
}
.label {
  font-weight: 600;
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
@media (max-width: 43rem) {
  .ways {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
