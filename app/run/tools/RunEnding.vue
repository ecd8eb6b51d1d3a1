<script setup lang="ts">
/** How a pour ends: a piece that is done, or one that is given up. Usage: <RunEnding v-model="open" :pieces="facts.pieces" :drying @record="put(...$event)" /> */
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref, useId } from 'vue'
import { FAULT_KINDS, type FaultKind } from '#core/finish'
import { VERDICTS, isInPlay, type EventBody, type PieceFacts, type Verdict } from '#core/pour'
import { usePieces } from '~/parts/pour/usePieces'
import { FAULT_WORDS } from '~/parts/words/faults'
import { VERDICT_WORDS } from '~/parts/words/pour'

const props = defineProps<{
  pieces: readonly PieceFacts[]
  /** The piece is out: it is judged. Before that, it is given up. */
  drying: boolean
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [bodies: EventBody[]] }>()

const left = computed(() => props.pieces.filter(isInPlay))
const { chosen, said, isAll, none } = usePieces(left)

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
  // Not said of any it would be said of all, those that broke among them.
  const of =
    isAll.value && left.value.length < props.pieces.length ? { pieces: [...chosen.value] } : said.value
  const wasAll = isAll.value
  emit('record', [
    ...defects.value.map((kind): EventBody => ({ type: 'defect', kind, ...of })),
    { type: 'finished', verdict: verdict.value, reason: reason.value.trim(), ...said.value },
  ])
  verdict.value = undefined
  defects.value = []
  reason.value = ''
  if (wasAll) open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" :title="drying ? 'How did it come out?' : 'Give this pour up'">
    <WhichPieces v-model="chosen" label="Which of them" :pieces="left" />
    <LabelledPills
      v-model="verdict as Verdict"
      :label="drying ? (chosen.length > 1 ? 'They are' : 'It is') : 'It has'"
      :options="verdicts"
    />
    <LabelledPills v-model="defects" label="What is wrong with it" :options="FAULTS" multiple />
    <label :for="reasonId"><b>In a few words</b></label>
    <Textarea :id="reasonId" v-model="reason" rows="3" maxlength="500" />
    <Button
      :label="isAll ? 'Close this pour' : 'Note it of these'"
      :disabled="!verdict || none"
      @click="end"
    />
  </SheetDialog>
</template>
