<script setup lang="ts">
/** A profile out to a file and in from one. Usage: <ProfileFiles :nodes @read="put" /> */
import { Download, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { ref, useTemplateRef } from 'vue'
import { profileToCsv, profileToSvg } from '#core/formats'
import type { ProfileNode } from '#core/mould'
import { saveFile } from '~/parts/show/saveFile'
import { readProfileFile } from './profileBoard'

defineProps<{ nodes: ProfileNode[] }>()
const emit = defineEmits<{ read: [nodes: ProfileNode[]] }>()
const fileInput = useTemplateRef('fileInput')
const said = ref('')
const fileProblem = ref('')

const MAX_FILE_BYTES = 5_000_000
async function readFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  said.value = fileProblem.value = ''
  if (!file) return
  if (file.size > MAX_FILE_BYTES) {
    fileProblem.value = 'This file is too large for a profile. The drawing stands as it was.'
    return
  }
  const read = readProfileFile(file.name, await file.text())
  if ('problem' in read) {
    fileProblem.value = read.problem
    return
  }
  emit('read', read.nodes)
  said.value = read.said
}
</script>

<template>
  <div class="files">
    <input
      ref="fileInput"
      type="file"
      accept=".svg,.csv,.txt"
      class="visually-hidden"
      tabindex="-1"
      aria-label="Profile file"
      @change="readFile"
    />
    <Button severity="secondary" @click="fileInput?.click()"
      ><Upload :size="18" aria-hidden="true" />SVG or CSV</Button
    >
    <Button severity="secondary" @click="saveFile('profile.svg', 'image/svg+xml', profileToSvg(nodes))"
      ><Download :size="18" aria-hidden="true" />SVG</Button
    >
    <Button severity="secondary" @click="saveFile('profile.csv', 'text/csv', profileToCsv(nodes))"
      ><Download :size="18" aria-hidden="true" />CSV</Button
    >
    <p role="status" class="soft">{{ said }}</p>
  </div>
  <p v-if="fileProblem" class="problem" role="alert">{{ fileProblem }}</p>
</template>

<style scoped>
.files {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
</style>
