<script setup lang="ts">
/**
 * Where a part of the plan is changed or looked into: beside the sentence on a desk, a sheet over it on a phone. What it
 * holds stays as it was left, also what cannot be read yet, which a dialog that takes its content away with it would lose.
 * It closes by its button, by Esc and by Back, as a sheet by a tap beside it, too.
 * Usage: <PlanPanel v-model="open" :title :untitled>…<template #meanwhile>what the sheet covers</template></PlanPanel>
 */
import { X } from '@lucide/vue'
import { useMediaQuery, useScrollLock } from '@vueuse/core'
import { PANEL_COVERS } from './parts'
import FocusTrap from 'primevue/focustrap'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { useBackCloses } from '~/parts/form/useBackCloses'

const props = defineProps<{
  title: string
  /** Its name stands elsewhere already. */
  untitled?: boolean
}>()
const open = defineModel<boolean>({ required: true })
const vFocustrap = FocusTrap
const isNarrow = useMediaQuery(PANEL_COVERS)
const isSheet = computed(() => isNarrow.value && open.value)
useBackCloses(open)
const isLocked = useScrollLock(document.body)
watch(isSheet, (now) => (isLocked.value = now), { immediate: true })
onScopeDispose(() => (isLocked.value = false))

const panel = useTemplateRef<HTMLElement>('panel')
let cameFrom: Element | null = null
/** By keyboard one goes on in what was opened, and comes back to where one was. */
watch([open, () => props.title], async ([isOpen], [wasOpen]) => {
  if (!isOpen && !wasOpen) return
  if (isOpen) cameFrom = document.activeElement
  await nextTick()
  // It begins where one is: nothing has to move.
  if (isOpen) panel.value?.focus({ preventScroll: true })
  else if (cameFrom instanceof HTMLElement) cameFrom.focus()
})
</script>

<template>
  <div v-if="isSheet" class="beside" @click="open = false" />
  <aside
    v-show="open || !isNarrow"
    id="plan-panel"
    ref="panel"
    v-focustrap="{ disabled: !isSheet, autoFocus: false }"
    :class="{ sheet: isSheet }"
    :role="isSheet ? 'dialog' : undefined"
    :aria-modal="isSheet || undefined"
    aria-labelledby="plan-panel-title"
    tabindex="-1"
    @keydown.esc="open = false"
  >
    <header :class="{ 'visually-hidden': untitled && !isSheet }">
      <h2 id="plan-panel-title">{{ title }}</h2>
      <button v-if="open" type="button" class="close-button" @click="open = false">
        <X :size="22" aria-hidden="true" /><span>Close</span>
      </button>
      <div v-if="isSheet" class="meanwhile"><slot name="meanwhile" /></div>
    </header>
    <slot />
  </aside>
</template>

<style scoped>
aside {
  grid-area: panel;
  display: grid;
  gap: var(--s3);
  align-content: start;
  min-width: 0;
}
aside:focus {
  outline: none;
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0 var(--s3);
  flex-wrap: wrap;
  min-height: 44px;
}
.meanwhile {
  flex: 1 0 100%;
}
.beside {
  position: fixed;
  inset: 0;
  z-index: 20;
  background: #0a1d23b0;
}
.sheet {
  position: fixed;
  inset: auto 0 0;
  z-index: 21;
  max-height: 88dvh;
  overflow-y: auto;
  overscroll-behavior: contain;
  padding: 0 var(--s3) var(--s5);
  border-radius: 1.4rem 1.4rem 0 0;
  background: var(--chalk);
}
.sheet header {
  position: sticky;
  top: 0;
  z-index: 3;
  padding-block: var(--s2);
  background: var(--chalk);
}
</style>
