<script setup lang="ts">
/** What happened to a mould itself. Usage: <RunMouldLook v-model="open" :moulds @record="put(...$event)" /> */
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { MOULD_DAMAGES, type EventBody, type MouldDamage, type PlanMember } from '#core/pour'
import { DAMAGE_WORDS } from '~/parts/words/mould'

const props = defineProps<{ moulds: readonly PlanMember[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [bodies: EventBody[]] }>()

const chosen = ref<string>()
const lookedAt = computed({
  get: () => chosen.value ?? props.moulds[0]?.mouldId ?? '',
  set: (id) => (chosen.value = id),
})
const damages = ref<MouldDamage[]>([])
const OPTIONS = MOULD_DAMAGES.map((value) => ({ value, label: DAMAGE_WORDS[value] }))
function keep() {
  const mouldId = lookedAt.value === '' ? null : lookedAt.value
  emit(
    'record',
    damages.value.map((kind): EventBody => ({ type: 'mould_damage', mouldId, kind })),
  )
  damages.value = []
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" title="How is the mould?">
    <LabelledSelect
      v-if="moulds.length > 1"
      v-model="lookedAt"
      label="Which mould"
      :options="moulds.map((m) => ({ value: m.mouldId ?? '', label: m.name }))"
    />
    <ChoicePills v-model="damages" label="Damage to the mould" multiple :options="OPTIONS" />
    <Button label="Keep it" :disabled="damages.length === 0" @click="keep" />
  </SheetDialog>
</template>
