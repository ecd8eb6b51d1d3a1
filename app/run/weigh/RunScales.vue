<script setup lang="ts">
/** Which scale stands under the bowl and which button counts for this pour. Usage: <RunScales :weighing :scale :buttons /> */
import { Scale } from '@lucide/vue'
import type { UnwrapNestedRefs } from 'vue'
import type { useBenchButtons } from '../knock/useBenchButtons'
import type { useBowlScale } from './useBowlScale'
import type { useWeighing } from './useWeighing'

defineProps<{
  weighing: UnwrapNestedRefs<ReturnType<typeof useWeighing>>
  scale: UnwrapNestedRefs<ReturnType<typeof useBowlScale>>
  buttons: UnwrapNestedRefs<ReturnType<typeof useBenchButtons>>
}>()
</script>

<template>
  <section class="scales" aria-label="Scale and button">
    <p v-if="scale.says || scale.isPut" class="name">
      <Scale :size="20" aria-hidden="true" /> {{ scale.name }}
      <template v-if="scale.isGone"> says nothing</template>
    </p>
    <template v-if="scale.says">
      <button v-if="weighing.isTyped" type="button" class="ghost" @click="weighing.followScale()">
        Take what it shows
      </button>
      <button v-else type="button" class="ghost" @click="weighing.typeInstead()">Type it</button>
      <button type="button" class="ghost" @click="scale.zero()">Zero it</button>
    </template>
    <button v-if="scale.isPut" type="button" class="ghost" @click="scale.takeOff()">Take it off</button>
    <template v-if="!scale.says">
      <button v-for="d in scale.others" :key="d.id" type="button" class="ghost" @click="scale.put(d.id)">
        {{ d.elsewhere ? 'Move' : 'Use' }} {{ d.name }}{{ d.elsewhere ? ' here from another pour' : '' }}
      </button>
      <button
        v-if="scale.line.can && !scale.line.connected"
        type="button"
        class="ghost"
        @click="scale.line.connect()"
      >
        Connect a scale
      </button>
    </template>
    <button
      v-for="d in buttons.others"
      :key="d.id"
      type="button"
      class="ghost"
      @click="buttons.putHere(d.id)"
    >
      Knock with {{ d.name }}
    </button>
    <button v-for="d in buttons.put" :key="d.id" type="button" class="ghost" @click="buttons.takeOff(d.id)">
      {{ d.name }} knocks here: take it off
    </button>
    <small v-if="buttons.elsewhere && !scale.says">
      Without a scale that every screen hears, a press goes by the device that the button was put here from.
      To make it this one, take the button off and knock with it again.
    </small>
    <small v-if="scale.line.failure" role="alert">{{ scale.line.failure }}</small>
  </section>
</template>

<style scoped>
.scales {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.name {
  width: 100%;
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-weight: 700;
}
</style>
