<script setup lang="ts">
/** How a pour ends: a piece that is done, or one that is given up. Usage: <RunEnding v-model="open" :drying @record="put(...$event)" /> */
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref, useId } from 'vue'
import { FAULT_KINDS, type FaultKind } from '#core/finish'
import { VERDICTS, type EventBody, type Verdict } from '#core/pour'
import { FAULT_WORDS } from '~/parts/words/faults'
import { VERDICT_WORDS } from '~/parts/words/pour'

const props = defineProps<{
  /** The piece is out: it is judged. Before that, it is given up. */
  drying: boolean
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [bodies: EventBody[]] }>()

/** Nothing is chosen for the caster: what is recorded is what was meant. */
const verdict = ref<Verdict>()
const defects = ref<FaultKind[]>([])
const reason = ref('')
const reasonId = useId()
const verdicts = computed(() =>
  VERDICTS.filter((v) => props.drying || v === 'failed' || v === 'abandoned').map((value) => ({
    value,
    label: VERDICT_WORDS[value],
  })),
)
const FAULTS = FAULT_KINDS.map((value) => ({ value, label: FAULT_WORDS[value] }))
function end() {
  if (!verdict.value) return
  emit('record', [
    ...defects.value.map((kind): EventBody => ({ type: 'defect', kind })),
    { type: 'finished', verdict: verdict.value, reason: reason.value.trim() },
  ])
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" :title="drying ? 'How did it come out?' : 'Give this pour up'">
    <LabelledPills v-model="verdict as Verdict" :label="drying ? 'It is' : 'It has'" :options="verdicts" />
    <LabelledPills v-model="defects" label="What is wrong with it" :options="FAULTS" multiple />
    <label :for="reasonId"><b>In a few words</b></label>
    <Textarea :id="reasonId" v-model="reason" rows="3" maxlength="500" />
    <Button label="Close this pour" :disabled="!verdict" @click="end" />
  </SheetDialog>
</template>
