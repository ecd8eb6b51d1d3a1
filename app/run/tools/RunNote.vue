<script setup lang="ts">
/** A note in the pour's record. Usage: <RunNote v-model="open" @record="put" /> */
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { ref, useId } from 'vue'
import type { EventBody } from '#core/pour'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [body: EventBody] }>()
const text = ref('')
const id = useId()
function keep() {
  emit('record', { type: 'note', text: text.value.trim() })
  text.value = ''
  open.value = false
}
</script>

<template>
  <SheetDialog v-model="open" title="Note">
    <label :for="id" class="visually-hidden">Note</label>
    <Textarea :id v-model="text" rows="5" maxlength="2000" autofocus />
    <Button label="Keep it" :disabled="text.trim() === ''" @click="keep" />
  </SheetDialog>
</template>
