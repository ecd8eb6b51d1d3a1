<script setup lang="ts">
/**
 * Everything beside the one next thing, in one row: take back, put right, note, temperature, sound, an end. What has no
 * room in it is under "More". Usage: <RunTools :run fixable @fix="…" />; from elsewhere the end is asked for by `ending`.
 */
import {
  CircleX,
  Ellipsis,
  NotebookPen,
  Shapes,
  Thermometer,
  Undo2,
  Volume2,
  VolumeX,
  Wrench,
} from '@lucide/vue'
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import { filledMs } from '#core/pour'
import type { MenuEntry } from '~/parts/form/MenuButton.vue'
import { usePreferences } from '~/parts/show/usePreferences'
import type { StandingRun } from '../useRun'

const props = defineProps<{
  run: StandingRun
  /** Something in the bowl or the mould can still be put right. */
  fixable?: boolean
}>()
const emit = defineEmits<{ fix: [] }>()
const ending = defineModel<boolean>('ending', { default: false })
const { sound } = usePreferences()

const noting = ref(false)
const measuring = ref(false)
const looking = ref(false)
const ended = computed(() => props.run.mode === 'ended')
const isDrying = computed(() => props.run.mode === 'dry')
/** Moulds whose damage can be noted now: the piece is out of them, or about to be. */
const moulds = computed(() =>
  props.run.mode === 'demould' || isDrying.value ? (props.run.record.plan.mould.members ?? []) : [],
)

interface Tool extends MenuEntry {
  id: string
  disabled?: boolean
  pressed?: boolean
}
const tools = computed<Tool[]>(() => [
  {
    id: 'undo',
    label: 'Undo',
    icon: Undo2,
    act: props.run.undo,
    disabled: props.run.facts.live.length === 0,
  },
  ...(props.fixable ? [{ id: 'fix', label: 'Put right', icon: Wrench, act: () => emit('fix') }] : []),
  { id: 'note', label: 'Note', icon: NotebookPen, act: () => (noting.value = true) },
  ...(ended.value
    ? []
    : [
        { id: 'temp', label: 'Temperature', icon: Thermometer, act: () => (measuring.value = true) },
        {
          id: 'end',
          label: isDrying.value ? 'Finish' : 'Give up',
          icon: CircleX,
          act: () => (ending.value = true),
        },
      ]),
  ...(moulds.value.length > 0
    ? [{ id: 'mould', label: 'Mould', icon: Shapes, act: () => (looking.value = true) }]
    : []),
  {
    id: 'sound',
    label: sound.value ? 'Sound on' : 'Sound off',
    icon: sound.value ? Volume2 : VolumeX,
    act: () => (sound.value = !sound.value),
    pressed: sound.value,
  },
])
/** In a narrow window as many as fit one row, and one for the rest. */
const isNarrow = useMediaQuery('(max-width: 60rem)')
const IN_A_NARROW_ROW = 2
const shown = computed(() => (isNarrow.value ? tools.value.slice(0, IN_A_NARROW_ROW) : tools.value))
const folded = computed(() => tools.value.slice(shown.value.length))
</script>

<template>
  <div class="tools" :class="{ narrow: isNarrow }">
    <button
      v-for="tool in shown"
      :key="tool.id"
      type="button"
      :disabled="tool.disabled"
      :aria-pressed="tool.pressed"
      @click="tool.act"
    >
      <component :is="tool.icon" :size="20" aria-hidden="true" /><span>{{ tool.label }}</span>
    </button>
    <MenuButton v-if="folded.length > 0" label="More" :items="folded">
      <Ellipsis :size="20" aria-hidden="true" /><span>More</span>
    </MenuButton>
  </div>

  <RunNote v-model="noting" @record="run.put" />
  <RunTemperature
    v-model="measuring"
    :batch="run.facts.batch"
    :liquid="filledMs(run.facts.inHand.doneAtMs) === undefined"
    @record="run.put"
  />
  <RunMouldLook v-model="looking" :moulds @record="run.put(...$event)" />
  <RunEnding v-model="ending" :pieces="run.facts.pieces" :drying="isDrying" @record="run.put(...$event)" />
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  padding: var(--s2) var(--s6);
}
.tools :deep(> button) {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: var(--s2);
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid color-mix(in srgb, var(--on-ground) 35%, transparent);
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font-weight: 600;
  cursor: pointer;
}
.tools :deep(> button:disabled) {
  opacity: 0.45;
  cursor: default;
}
@media (max-width: 43rem) {
  .tools {
    padding: var(--s1) var(--s4) var(--s2);
  }
  /* Only once what does not fit is under "More": a window made narrow is not wider than itself meanwhile. */
  .tools.narrow {
    flex-wrap: nowrap;
  }
  .tools :deep(> button) {
    flex: 1;
    padding: 0 var(--s1);
  }
}
</style>
