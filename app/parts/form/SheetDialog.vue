<script setup lang="ts">
/**
 * A sheet over the page. It closes by its button, by a tap beside it, by Esc and by Back, and scrolls with the page, so
 * that nothing of it is hidden in a box of its own.
 * Usage: <SheetDialog v-model="open" title="Note">…</SheetDialog>
 */
import { X } from '@lucide/vue'
import { computed, defineAsyncComponent, ref, useId, watch } from 'vue'
import { useBackCloses } from './useBackCloses'

/** No sheet is open at first: its code comes with the first that is. */
const Dialog = defineAsyncComponent(() => import('primevue/dialog'))

defineProps<{ title: string; wide?: boolean }>()
const open = defineModel<boolean>({ required: true })
useBackCloses(open)
const id = useId()
const wasOpened = ref(open.value)
/** Where the page stood when it opened: there the sheet lies. */
const fromPx = ref(open.value ? window.scrollY : 0)
watch(open, (now) => {
  if (!now) return
  fromPx.value = window.scrollY
  wasOpened.value = true
})
const pt = computed(() => ({
  mask: { class: 'sheet-mask', style: { '--from': `${fromPx.value}px` } },
  root: { 'aria-labelledby': id },
}))
</script>

<template>
  <Dialog
    v-if="wasOpened"
    v-model:visible="open"
    modal
    dismissable-mask
    :draggable="false"
    :pt="pt"
    class="sheet"
    :class="{ wide }"
  >
    <template #container="{ closeCallback }">
      <header>
        <h2 :id="id">{{ title }}</h2>
        <button type="button" class="close-button" @click="closeCallback">
          <X :size="22" aria-hidden="true" /><span>Close</span>
        </button>
      </header>
      <div class="sheet-body"><slot /></div>
    </template>
  </Dialog>
</template>

<style>
/* The page and the sheet lie in one cell: whichever is the taller makes the page as tall as it is. */
body:has(> .sheet-mask) {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  overflow: visible !important;
  padding-right: 0 !important;
}
body:has(> .sheet-mask) > #__nuxt,
.sheet-mask {
  grid-area: 1 / 1;
}
.sheet-mask.sheet-mask {
  position: relative !important;
  height: auto !important;
  align-items: flex-start !important;
  padding: calc(var(--from) + clamp(1rem, 6vh, 4rem)) 0.75rem 3rem;
  background: #0a1d23b0;
}
.sheet.p-dialog {
  --ring: var(--ring-on-light);
  display: grid !important;
  gap: var(--s4);
  width: min(34rem, 100%);
  max-height: none;
  padding: var(--s4) var(--s5) var(--s5);
  border: 0;
  border-radius: 1.4rem;
  background: var(--plaster);
  color: var(--ink);
  box-shadow: none;
}
.sheet.p-dialog.wide {
  width: min(60rem, 100%);
}
.sheet > header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--s3);
}
.sheet-body {
  display: grid;
  gap: var(--s4);
  min-width: 0;
}
@media (max-width: 43rem) {
  .sheet.p-dialog {
    padding: var(--s3) var(--s4) var(--s4);
  }
}
</style>
