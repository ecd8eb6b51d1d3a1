<script setup lang="ts">
/** Which scale stands under the bowl and which button counts for this pour. Usage: <RunScales :weighing :scale :buttons /> */
import type { UnwrapNestedRefs } from 'vue'
import type { useBenchButtons } from './useBenchButtons'
import type { useBowlScale } from './useBowlScale'
import type { useWeighing } from './useWeighing'

defineProps<{
  weighing: UnwrapNestedRefs<ReturnType<typeof useWeighing>>
  scale: UnwrapNestedRefs<ReturnType<typeof useBowlScale>>
  buttons: UnwrapNestedRefs<ReturnType<typeof useBenchButtons>>
}>()
</script>

<template>
  <div class="scales">
    <button v-if="weighing.isTyped && scale.says" type="button" @click="weighing.followScale()">
      Take what the scale shows
    </button>
    <template v-if="scale.says">
      <button type="button" @click="scale.zero()">Zero the scale here</button>
      <button v-if="scale.isPut" type="button" @click="scale.takeOff()">Take {{ scale.name }} off</button>
    </template>
    <template v-else>
      <button v-for="d in scale.others" :key="d.id" type="button" @click="scale.put(d.id)">
        Use {{ d.name }}<small v-if="d.elsewhere"> (it is at another pour)</small>
      </button>
      <button v-if="scale.line.can && !scale.line.connected" type="button" @click="scale.line.connect()">
        Connect a scale
      </button>
    </template>
    <button v-for="d in buttons.others" :key="d.id" type="button" @click="buttons.putHere(d.id)">
      Knock with {{ d.name }}
    </button>
    <button v-for="d in buttons.put" :key="d.id" type="button" @click="buttons.takeOff(d.id)">
      {{ d.name }} knocks here: take it off
    </button>
    <small v-if="scale.line.failure" role="alert">{{ scale.line.failure }}</small>
  </div>
</template>

<style scoped>
.scales {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  justify-content: center;
}
button {
  min-height: 44px;
  padding: 0 var(--s4);
  border-radius: 999px;
  border: 2px solid currentColor;
  background: transparent;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}
</style>
