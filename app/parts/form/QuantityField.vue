<script setup lang="ts">
/**
 * A quantity typed as a caster writes it: `2 lb 3 oz`, `750 ml`, `1/2 in`. Keeps what was typed; the model moves only
 * to values that make sense.
 * Usage: <QuantityField v-model="waterG" kind="mass" label="Water" :min="1" @problem="…" />
 */
import InputText from 'primevue/inputtext'
import { computed, onBeforeUnmount, ref, useId, watch } from 'vue'
import { type QuantityKind, type QuantityReading } from '#core/units'
import { plain } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { QUANTITY_ERROR_WORDS, readingWords, sortedByGuess } from './quantityWords'

const props = defineProps<{
  kind: QuantityKind
  label: string
  min: number
  max: number
  /** Most digits after the point of a bare number; 2 unless said. */
  decimals?: number
  suffix?: string
  large?: boolean
  /** An estimate: shown to two figures. */
  rough?: boolean
  /** May stay empty: then the model is undefined. */
  optional?: boolean
  /** Of water: a volume will do where a mass is asked for, and the other way about. */
  water?: boolean
}>()
const model = defineModel<number | undefined>({ required: true })
const emit = defineEmits<{ problem: [message: string] }>()

const id = useId()
const units = useUnits()
const workshop = useWorkshop()

function show(value: number): string {
  switch (props.kind) {
    case 'mass':
      return units.mass(value)
    case 'volume':
      return props.rough ? units.roughVolume(value) : units.volume(value)
    case 'length':
      return units.length(value)
    case 'area':
      return units.area(value)
    case 'temp':
      return units.temp(value)
    case 'number':
      return plain(value, props.decimals ?? 2)
  }
}

const text = ref(model.value === undefined ? '' : show(model.value))
const problem = ref('')
const editing = ref(false)
/** What it could mean, where it could mean more than one thing. */
const choices = ref<QuantityReading[]>([])
/** What was read into it, said back. */
const echo = ref('')

/** What this field itself has read last: it stands as it was typed, with what was read into it. Null: nothing yet. */
let own: number | undefined | null = null
watch([model, units.system], ([value, system], [, before]) => {
  if (editing.value || (value === own && system === before)) return
  if (value !== undefined) text.value = show(value)
  else if (props.optional) text.value = ''
  else return
  echo.value = ''
  choices.value = []
  report('')
})

function report(message: string) {
  if (problem.value === message) return
  problem.value = message
  emit('problem', message)
}

// What cannot be read in a field that is gone stands in nobody's way.
onBeforeUnmount(() => report(''))

function read() {
  choices.value = []
  echo.value = ''
  if (props.optional && text.value.trim() === '') {
    own = undefined
    model.value = undefined
    return report('')
  }
  const { kind } = props
  const parsed =
    props.water && (kind === 'mass' || kind === 'volume')
      ? units.parseWater(text.value, kind)
      : units.parse(text.value, kind)
  if (!parsed.ok) {
    if (parsed.code === 'ambiguous')
      choices.value = sortedByGuess(parsed.readings, text.value, navigator.language)
    return report(QUANTITY_ERROR_WORDS[parsed.code])
  }
  echo.value = readingWords(parsed, units)
  if (parsed.value < props.min) return report(`At least ${show(props.min)}.`)
  if (parsed.value > props.max) return report(`At most ${show(props.max)}.`)
  report('')
  own = parsed.value
  model.value = parsed.value
}

function choose(reading: QuantityReading) {
  text.value = reading.canonical
  read()
  void keepKitchen(reading)
}
/** Whose cups are meant is asked once. */
async function keepKitchen({ notes }: QuantityReading) {
  const measure = notes.find((n) => n.about === 'measure')
  const { kitchen, system } = workshop.settings
  if (!measure || kitchen !== null || system !== 'metric') return
  await workshop.rememberSettings({ kitchen: measure.size === 'US' ? 'us' : 'imperial' })
}
/** What each would be here, beside its name. */
const choiceWords = ({ canonical, value, notes }: QuantityReading) =>
  notes.some((n) => n.about === 'measure') ? `${canonical}: ${show(value)}` : canonical

function leave() {
  editing.value = false
  if (problem.value === '' && model.value !== undefined) text.value = show(model.value)
}

const described = computed(() => (problem.value ? `${id}-problem` : undefined))
</script>

<template>
  <div class="field" :class="{ large }">
    <label :for="id">{{ label }}</label>
    <span class="line">
      <InputText
        :id="id"
        v-model="text"
        :invalid="problem !== ''"
        :aria-invalid="problem !== ''"
        :aria-describedby="described"
        autocomplete="off"
        :inputmode="kind === 'number' ? 'decimal' : 'text'"
        @focus="editing = true"
        @update:model-value="read"
        @blur="leave"
      />
      <span v-if="suffix" class="suffix">{{ suffix }}</span>
    </span>
    <small v-if="echo && !problem" class="soft" role="status">{{ echo }}</small>
    <small v-if="problem" :id="`${id}-problem`" class="problem" role="alert">{{ problem }}</small>
    <span v-if="choices.length > 0" class="outline-buttons">
      <button v-for="c in choices" :key="c.canonical" type="button" class="outline-button" @click="choose(c)">
        {{ choiceWords(c) }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  align-content: start;
  gap: var(--s1);
  min-width: 0;
}
label {
  font-weight: 600;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s2);
}
.line :deep(input) {
  flex: 1 1 5.5rem;
  width: 5.5rem;
  min-width: 0;
}
.large :deep(input) {
  font-family: var(--display);
  font-weight: 700;
  font-size: 2rem;
}
.suffix {
  flex: 0 1 auto;
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
</style>
