<script setup lang="ts">
/** Every part in its states, on every ground, in every look: for whoever changes one. In development only. */
import Button from 'primevue/button'
import { ref } from 'vue'
import { STAGES } from '#core/pour'
import { CAUTIONS, type CautionId } from '~/parts/show/cautions'
import { LOOKS, usePreferences } from '~/parts/show/usePreferences'
import { groundOf } from '~/parts/show/ground'
import { STAGE_WORDS } from '~/parts/words/pour'

const { look } = usePreferences()
const looks = LOOKS.map((value) => ({ value, label: value }))
const GROUNDS = ['mould', 'soak', 'set', 'dry'] as const
const massG = ref<number | undefined>(750)
const empty = ref<number>()
const hot = ref(95)
const pill = ref<'one' | 'two'>('one')
const several = ref<('one' | 'two' | 'three')[]>(['one', 'three'])
const PILLS = [
  { value: 'one' as const, label: 'Chosen' },
  { value: 'two' as const, label: 'Another' },
]
const THREE = [...PILLS, { value: 'three' as const, label: 'And a third' }]
const chosen = ref('')
const SELECT = [
  { value: '', label: 'None in particular' },
  { value: 'long', label: 'High-strength gypsum cement, red tub in the far corner' },
]
const open = ref(false)
const cautions = Object.keys(CAUTIONS) as CautionId[]
</script>

<template>
  <div class="page">
    <h1>The look</h1>
    <LabelledPills v-model="look" label="In which light" :options="looks" />
    <section v-for="stage in GROUNDS" :key="stage" class="ground" :class="groundOf(stage)">
      <h2>On the ground of {{ STAGE_WORDS[stage].toLowerCase() }}</h2>
      <p class="soft">What is said beside.</p>
      <p class="figure large">12:05</p>
      <p class="row">
        <button type="button" class="ghost">A lesser button</button>
        <button type="button" class="ghost" disabled>Not now</button>
        <a href="#main">A link</a>
      </p>
      <CautionNote id="dust" />
      <CautionNote id="body" folded />
      <div class="pool">
        <p>The pool</p>
        <button type="button" class="ghost">An answer</button>
        <QuantityField v-model="massG" kind="mass" label="On the scale" large :min="1" :max="1000" />
      </div>
    </section>
    <section class="slab">
      <h2>Buttons</h2>
      <p class="row">
        <Button label="The main one" />
        <Button label="Not now" disabled />
        <Button severity="secondary" label="Another" />
        <button type="button" class="outline-button">An answer</button>
        <button type="button" class="outline-button" aria-pressed="true">The one given</button>
        <MenuButton class="outline-button" label="More" :items="[{ label: 'This', act: () => {} }]" />
        <Button severity="secondary" label="A sheet" @click="open = true" />
      </p>
      <h2>Choices</h2>
      <LabelledPills v-model="pill" label="One of two" :options="PILLS" />
      <LabelledPills v-model="several" label="As many as there are" multiple :options="THREE" />
      <LabelledSelect v-model="chosen" label="From a list" :options="SELECT" />
      <h2>Fields</h2>
      <div class="pair">
        <QuantityField v-model="massG" kind="mass" label="Filled" :min="1" :max="1000" />
        <QuantityField v-model="empty" kind="volume" label="May stay empty" optional :min="1" :max="1000" />
        <QuantityField v-model="hot" kind="temp" label="Out of its range" :min="2" :max="45" />
      </div>
    </section>
    <section class="slab">
      <h2>The sign</h2>
      <p class="row">
        <RingSign
          v-for="(stage, i) in STAGES"
          :key="stage"
          :rings="STAGES.map((_, n) => (n < i ? 1 : n === i ? 0.6 : 0))"
          :size="72"
          :label="STAGE_WORDS[stage]"
        />
        <RingSign :rings="STAGES.map(() => 1)" :size="72" label="Finished" />
        <RingSign :rings="STAGES.map((_, n) => (n < 5 ? 1 : 0))" :size="72" label="Failed" failed />
      </p>
    </section>
    <section class="slab">
      <h2>Cautions</h2>
      <CautionNote v-for="id in cautions" :id :key="id" />
    </section>
    <SheetDialog v-model="open" title="A sheet">
      <p>It closes by its button, by a touch beside it, by Esc and by Back.</p>
    </SheetDialog>
  </div>
</template>

<style scoped>
.ground,
.slab {
  display: grid;
  gap: var(--s3);
  padding: var(--s4);
  border-radius: 1.1rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s3);
  max-width: none;
}
.large {
  font-size: 4rem;
}
</style>
