<script setup lang="ts">
/**
 * One button for several lesser things. Usage: <MenuButton label="Take out" :items="[{ label: 'As a table', act }]" />;
 * its look is the caller's, by class and slot.
 */
import { nextTick, ref, shallowRef, useTemplateRef, type Component } from 'vue'

export interface MenuEntry {
  label: string
  icon?: Component
  act: () => void
}
/** Its code comes with the first touch. */
const Menu = shallowRef<Component>()

defineProps<{ label: string; items: readonly MenuEntry[] }>()
defineOptions({ inheritAttrs: false })
const menu = useTemplateRef<{ toggle: (event: Event) => void }>('menu')
const button = useTemplateRef<HTMLButtonElement>('button')
const isOpen = ref(false)
async function toggle() {
  Menu.value ??= (await import('primevue/menu')).default
  await nextTick()
  menu.value?.toggle({ currentTarget: button.value } as unknown as Event)
}
</script>

<template>
  <button
    ref="button"
    type="button"
    aria-haspopup="menu"
    :aria-expanded="isOpen"
    v-bind="$attrs"
    @click="toggle"
  >
    <slot>{{ label }}</slot>
  </button>
  <component
    :is="Menu"
    v-if="Menu"
    ref="menu"
    popup
    class="entries"
    :model="items.map((entry) => ({ label: entry.label, entry, command: entry.act }))"
    @show="isOpen = true"
    @hide="isOpen = false"
  >
    <template #item="{ item, props: link }">
      <a v-bind="link.action">
        <component
          :is="(item.entry as MenuEntry).icon"
          v-if="(item.entry as MenuEntry).icon"
          :size="20"
          aria-hidden="true"
        />
        <span>{{ item.label }}</span>
      </a>
    </template>
  </component>
</template>

<style>
.entries a {
  display: flex;
  align-items: center;
  gap: var(--s3);
  min-width: 12rem;
  min-height: 48px;
  padding: 0 var(--s4);
  font-weight: 600;
}
</style>
