<script setup lang="ts">
/** Everything beside the one next thing: take back, note, temperature, ending. Usage: <RunTools :can-undo … @record @undo /> */
import { CircleX, NotebookPen, Shapes, Thermometer, Undo2, Volume2, VolumeX, Wrench } from '@lucide/vue'
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { ref, useId } from 'vue'
import { FAULT_KINDS, type FaultKind } from '#core/finish'
import {
  MOULD_DAMAGES,
  VERDICTS,
  type EventBody,
  type MouldDamage,
  type PlanMember,
  type Verdict,
} from '#core/pour'
import { usePreferences } from '~/parts/show/usePreferences'
import { DAMAGE_WORDS } from '~/parts/words/mould'
import { FAULT_WORDS } from '~/parts/words/faults'
import { VERDICT_WORDS } from '~/parts/words/pour'

const props = defineProps<{
  canUndo: boolean
  ended: boolean
  drying: boolean
  /** Something in the bowl or the mould can still be put right. */
  fixable: boolean
  /** The bowl in hand: a temperature of the slurry is its own. */
  batch: number
  /** Moulds whose damage can be noted now: the piece is out of them. */
  moulds: readonly PlanMember[]
}>()
const { sound } = usePreferences()
const ending = defineModel<boolean>('ending', { required: true })
const emit = defineEmits<{ record: [bodies: EventBody[]]; undo: []; fix: [] }>()

const noting = ref(false)
const note = ref('')
const noteId = useId()
function keepNote() {
  if (note.value.trim() === '') return
  emit('record', [{ type: 'note', text: note.value.trim() }])
  note.value = ''
  noting.value = false
}

const measuring = ref(false)
const tempC = ref<number | undefined>(undefined)
const place = ref<'slurry' | 'surface' | 'room'>('slurry')
const PLACES = [
  { value: 'slurry', label: 'Slurry' },
  { value: 'surface', label: 'Surface' },
  { value: 'room', label: 'Room' },
]
const tempProblem = ref('')
function keepTemp() {
  if (tempC.value === undefined || tempProblem.value) return
  const ofBowl = place.value === 'slurry' && props.batch > 0 ? { batch: props.batch } : {}
  emit('record', [{ type: 'temperature', place: place.value, tempC: tempC.value, ...ofBowl }])
  tempC.value = undefined
  measuring.value = false
}

const looking = ref(false)
const lookedAt = ref('')
const damages = ref<MouldDamage[]>([])
const damageOptions = MOULD_DAMAGES.map((value) => ({ value, label: DAMAGE_WORDS[value] }))
function lookAtMould() {
  lookedAt.value = props.moulds[0]?.mouldId ?? ''
  damages.value = []
  looking.value = true
}
function keepDamage() {
  const mouldId = lookedAt.value === '' ? null : lookedAt.value
  emit(
    'record',
    damages.value.map((kind): EventBody => ({ type: 'mould_damage', mouldId, kind })),
  )
  looking.value = false
}

const verdict = ref<Verdict>('good')
const defects = ref<FaultKind[]>([])
const reason = ref('')
const reasonId = useId()
const verdictOptions = VERDICTS.map((value) => ({ value, label: VERDICT_WORDS[value] }))
const defectOptions = FAULT_KINDS.map((value) => ({ value, label: FAULT_WORDS[value] }))
function openEnding() {
  verdict.value = props.drying ? 'good' : 'failed'
  ending.value = true
}
function end() {
  emit('record', [
    ...defects.value.map((kind): EventBody => ({ type: 'defect', kind })),
    { type: 'finished', verdict: verdict.value, reason: reason.value.trim() },
  ])
  ending.value = false
}
</script>

<template>
  <div class="tools">
    <button type="button" :disabled="!canUndo" @click="emit('undo')">
      <Undo2 :size="20" aria-hidden="true" /><span>Undo</span>
    </button>
    <button v-if="fixable" type="button" @click="emit('fix')">
      <Wrench :size="20" aria-hidden="true" /><span>Put right</span>
    </button>
    <button type="button" @click="noting = true">
      <NotebookPen :size="20" aria-hidden="true" /><span>Note</span>
    </button>
    <button v-if="!ended" type="button" @click="measuring = true">
      <Thermometer :size="20" aria-hidden="true" /><span>Temperature</span>
    </button>
    <button v-if="!ended" type="button" @click="openEnding">
      <CircleX :size="20" aria-hidden="true" /><span>{{ drying ? 'Finish' : 'Give up' }}</span>
    </button>
    <button v-if="moulds.length > 0" type="button" @click="lookAtMould">
      <Shapes :size="20" aria-hidden="true" /><span>Mould</span>
    </button>
    <button
      type="button"
      :aria-pressed="sound"
      :aria-label="sound ? 'Sound on' : 'Silent: sound off'"
      @click="sound = !sound"
    >
      <component :is="sound ? Volume2 : VolumeX" :size="20" aria-hidden="true" /><span>{{
        sound ? 'Sound' : 'Silent'
      }}</span>
    </button>
  </div>

  <SheetDialog v-model="looking" title="How is the mould?">
    <LabelledSelect
      v-if="moulds.length > 1"
      v-model="lookedAt"
      label="Which mould"
      :options="moulds.map((m) => ({ value: m.mouldId ?? '', label: m.name }))"
    />
    <ChoicePills v-model="damages" label="Damage to the mould" multiple :options="damageOptions" />
    <Button label="Keep it" :disabled="damages.length === 0" @click="keepDamage" />
  </SheetDialog>
  <SheetDialog v-model="noting" title="Note">
    <label :for="noteId" class="visually-hidden">Note</label>
    <Textarea :id="noteId" v-model="note" rows="5" maxlength="2000" autofocus />
    <Button label="Keep it" :disabled="note.trim() === ''" @click="keepNote" />
  </SheetDialog>

  <SheetDialog v-model="measuring" title="Temperature">
    <ChoicePills v-model="place" label="Where" :options="PLACES" />
    <QuantityField
      v-model="tempC"
      kind="temp"
      label="It reads"
      :min="-20"
      :max="95"
      @problem="tempProblem = $event"
    />
    <p class="soft">
      Read while it can still be poured, a slurry temperature replaces the estimate and the setting times
      follow it. Later readings are of the piece: they are kept, and move no clock.
    </p>
    <Button label="Keep it" :disabled="tempC === undefined || tempProblem !== ''" @click="keepTemp" />
  </SheetDialog>

  <SheetDialog v-model="ending" :title="drying ? 'How did it come out?' : 'End this pour'">
    <ChoicePills v-model="verdict" label="Verdict" :options="verdictOptions" />
    <b aria-hidden="true">What is wrong with it</b>
    <ChoicePills v-model="defects" label="What is wrong with it" :options="defectOptions" multiple />
    <label :for="reasonId"><b>In a few words</b></label>
    <Textarea :id="reasonId" v-model="reason" rows="3" maxlength="500" />
    <Button label="Close this pour" @click="end" />
  </SheetDialog>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  padding: var(--s2) var(--s6) var(--s3);
}
.tools button {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid color-mix(in srgb, var(--on-ground) 35%, transparent);
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font-weight: 600;
  font-size: 0.95rem;
  cursor: pointer;
}
.tools button:disabled {
  opacity: 0.45;
  cursor: default;
}
@media (max-width: 43rem) {
  .tools {
    flex-wrap: nowrap;
    gap: var(--s1);
    padding: var(--s1) var(--s2) var(--s2);
  }
  .tools button {
    flex: 1;
    flex-direction: column;
    gap: 0;
    padding: 0.35rem 0;
    border-radius: 0.9rem;
    font-size: 0.72rem;
    line-height: 1.2;
  }
}
</style>
