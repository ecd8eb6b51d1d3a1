<script setup lang="ts">
/** A sheet over the run. Usage: <SheetDialog v-model="open" title="Note">…</SheetDialog> */
import { useId, useTemplateRef, watch } from 'vue'

defineProps<{ title: string; wide?: boolean }>()
const open = defineModel<boolean>({ required: true })
const dialog = useTemplateRef('dialog')
const id = useId()
// Once its contents stand, so that the first field has the focus.
watch(open, (now) => (now ? dialog.value?.showModal() : dialog.value?.close()), { flush: 'post' })
</script>

<template>
  <dialog ref="dialog" :class="{ wide }" :aria-labelledby="id" @close="open = false">
    <div v-if="open" class="sheet">
      <h2 :id="id">{{ title }}</h2>
      <slot />
    </div>
  </dialog>
</template>

<style scoped>
dialog {
  border: 0;
  border-radius: 1.4rem;
  padding: 0;
  background: var(--plaster);
  color: var(--ink);
  width: min(34rem, calc(100vw - 2rem));
}
dialog.wide {
  width: min(60rem, calc(100vw - 2rem));
}
dialog::backdrop {
  background: #0a1d23b0;
}
.sheet {
  display: grid;
  gap: var(--s4);
  padding: var(--s5);
}
</style>
