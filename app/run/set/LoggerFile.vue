<script setup lang="ts">
/** A logger's file, looked at, shown as it was read, and taken into the forecast. Usage: <LoggerFile v-model="open" :pour-id :facts :now-ms /> */
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import {
  LOGGER_TIMES,
  findLoggerFormat,
  readLoggerFile,
  type LoggerFormat,
  type LoggerResult,
} from '#core/formats'
import type { PourOutlook } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { momentText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { failureWords } from '~/parts/words/errors'
import { useProbes } from '~/stores/probes'
import { LOGGER_FAULT_WORDS, LOGGER_TIME_WORDS } from './loggerWords'
import { fileIdOf, placedReadings } from './loggerPlace'

const props = defineProps<{ pourId: string; facts: PourOutlook; nowMs: number }>()
const open = defineModel<boolean>({ required: true })
const units = useUnits()
const probes = useProbes()

const text = ref('')
const format = ref<LoggerFormat>()
const failure = ref('')
const taken = ref<string>()
const result = computed<LoggerResult | undefined>(() =>
  text.value === '' ? undefined : readLoggerFile(text.value, format.value),
)
/** Where a file that counts from nothing begins. */
const zero = ref<'met_water' | 'poured'>('poured')
const placed = computed(() =>
  result.value?.ok ? placedReadings(result.value, props.facts, zero.value, props.nowMs) : [],
)
const counts = computed(() => result.value?.ok && ['minutes', 'seconds'].includes(result.value.format.time))

async function choose(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  failure.value = ''
  taken.value = undefined
  text.value = file ? await file.text() : ''
  format.value = findLoggerFormat(text.value)
}
async function take() {
  // Which file it is is told by what only a page that came by https may work out.
  if (!('subtle' in crypto)) {
    failure.value =
      'This page did not come by https, so a file cannot be read in here. Do it at the workshop’s machine.'
    return
  }
  const file = await fileIdOf(text.value)
  const failed = await probes.addFile(props.pourId, {
    file,
    batch: props.facts.batch,
    readings: placed.value,
  })
  failure.value = failed ? failureWords(failed) : ''
  if (!failed) taken.value = file
}
async function takeBack() {
  if (!taken.value) return
  const failed = await probes.removeFile(props.pourId, taken.value)
  failure.value = failed ? failureWords(failed) : ''
  if (!failed) taken.value = undefined
}
const set = (change: Partial<LoggerFormat>) => (format.value = { ...format.value!, ...change })
</script>

<template>
  <SheetDialog v-model="open" title="A logger’s file">
    <p class="soft">
      Any file with a column of times and one of temperatures. Nothing is taken before you have seen it.
    </p>
    <input
      type="file"
      accept=".csv,.txt,.tsv,text/csv,text/plain"
      aria-label="Logger’s file"
      @change="choose"
    />
    <p v-if="result && !result.ok" class="problem" role="alert">{{ LOGGER_FAULT_WORDS[result.fault] }}</p>
    <template v-if="format">
      <LabelledPills
        label="Its times are"
        :model-value="format.time"
        :options="LOGGER_TIMES.map((value) => ({ value, label: LOGGER_TIME_WORDS[value] }))"
        @update:model-value="set({ time: $event as LoggerFormat['time'] })"
      />
      <LabelledPills
        label="Its temperatures are"
        :model-value="format.unit"
        :options="[
          { value: 'c', label: '°C' },
          { value: 'f', label: '°F' },
        ]"
        @update:model-value="set({ unit: $event as LoggerFormat['unit'] })"
      />
    </template>
    <LabelledPills
      v-if="counts"
      v-model="zero"
      label="It began when"
      :options="[
        { value: 'poured', label: 'the mould was full' },
        { value: 'met_water', label: 'powder met water' },
      ]"
    />
    <template v-if="result?.ok && placed.length > 0">
      <p data-testid="logger-found">
        {{ counted(placed.length, 'reading') }}, {{ momentText(placed[0]!.atMs, nowMs) }} to
        {{ momentText(placed.at(-1)!.atMs, nowMs) }}, {{ units.temp(placed[0]!.tempC) }} to at most
        {{ units.temp(Math.max(...placed.map((r) => r.tempC)))
        }}<template v-if="result.skipped > 0"
          >; {{ counted(result.skipped, 'line') }} left out (headings, gaps)</template
        >.
      </p>
      <Button v-if="!taken" label="Take these readings" @click="take" />
      <template v-else>
        <p role="status">Taken: the forecast goes by them, too.</p>
        <Button severity="secondary" label="Take them out again" @click="takeBack" />
      </template>
    </template>
    <p v-if="failure" class="problem" role="alert">{{ failure }}</p>
    <Button severity="secondary" label="Close" @click="open = false" />
  </SheetDialog>
</template>
