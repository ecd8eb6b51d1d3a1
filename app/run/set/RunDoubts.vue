<script setup lang="ts">
/**
 * What the forecast cannot make fit: a pace far from bag and mix, a thermometer that reads what this piece cannot be. Each
 * is asked about, and one press puts right what it was. Usage: <RunDoubts :facts :pour-id :now-ms />
 */
import { computed, ref } from 'vue'
import type { ProbeDoubt } from '#core/forecast'
import {
  filledMs,
  type EventBody,
  type PourOutlook,
  type TempChannel,
  type ThermometerTold,
} from '#core/pour'
import { celsiusFromFahrenheit } from '#core/units'
import { PROBE_CURES, probeFaultWords } from '~/parts/words/demould'
import { TOLD_WORDS } from '~/parts/words/told'
import { useBench } from '~/stores/bench'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { farOffSentence } from './setWords'
import { useSettingTime } from './useSettingTime'

const props = defineProps<{
  facts: PourOutlook
  pourId: string
  nowMs: number
}>()
const { at } = useSettingTime(props)
const pours = usePours()
const workshop = useWorkshop()
const { clock } = useBench()
const put = (...bodies: EventBody[]) => void pours.record(props.pourId, ...bodies)

const farOff = computed(() => props.facts.learnt?.farOff)
const choosing = ref(false)
const measuring = ref(false)

interface Cure {
  label: string
  act: () => void
}
/** Other pieces that are setting: a thermometer may be in one of them. */
const MOST_OTHERS = 2
const others = computed(() =>
  pours.open.filter(
    ({ record, facts }) =>
      record.id !== props.pourId &&
      filledMs(facts.doneAtMs) !== undefined &&
      facts.doneAtMs.demould === undefined,
  ),
)
const doubts = computed(() =>
  (props.facts.learnt?.probeFaults ?? []).map((doubt) => ({
    key: `${doubt.knownBy} ${doubt.fault}`,
    words: probeFaultWords(doubt.fault, nameOf(doubt)),
    cures: curesOf(doubt),
  })),
)
const sourceOf = ({ knownBy }: ProbeDoubt) => {
  const [device, channel] = knownBy?.split(' ') ?? []
  return device && channel ? { device, channel: channel as TempChannel } : undefined
}
function nameOf(doubt: ProbeDoubt): string {
  const source = sourceOf(doubt)
  if (!source) return 'What was typed'
  const card = workshop.devices.find((d) => d.id === source.device)
  return card ? `${card.name}, ${source.channel.slice(1)},` : 'The logger’s file'
}

function curesOf(doubt: ProbeDoubt): Cure[] {
  const source = sourceOf(doubt)
  if (!source) {
    const wereF = { label: 'It was °F', act: () => retype(doubt, celsiusFromFahrenheit) }
    return [
      ...(doubt.fault === 'fahrenheit' ? [wereF] : []),
      { label: 'Take it back', act: () => retype(doubt, () => undefined) },
    ]
  }
  const { device, channel } = source
  const isHere = workshop.devices.some((d) => d.id === device)
  const moveTo = (to: { pourId: string; batch: number } | null) => {
    if (isHere) void workshop.putDeviceTo(device, channel, to)
  }
  const tell = (is: ThermometerTold) => put({ type: 'thermometer_told', device, channel, is })
  return PROBE_CURES[doubt.fault].flatMap((is): Cure[] => {
    if (is !== 'elsewhere' || !isHere) {
      const act = () => {
        tell(is)
        if (is === 'off') moveTo(null)
      }
      return [{ label: TOLD_WORDS[is].press, act }]
    }
    return others.value.slice(0, MOST_OTHERS).map(({ record, facts }) => ({
      label: `It is in ${facts.plan.piece}`,
      act: () => {
        tell(is)
        moveTo({ pourId: record.id, batch: facts.batch })
      },
    }))
  })
}
/** What was typed of that place of this piece since it was in the mould, put right or taken back. */
function retype({ knownBy }: ProbeDoubt, meant: (tempC: number) => number | undefined) {
  const filled = filledMs(props.facts.inHand.doneAtMs) ?? Infinity
  const nowMs = clock.nowMs()
  void pours.recordAt(
    props.pourId,
    props.facts.live.flatMap(({ id: targetId, body, occurredAtMs: atMs }) => {
      if (body.type !== 'temperature' || body.place !== knownBy || atMs < filled) return []
      const tempC = meant(body.tempC)
      const right = tempC === undefined ? [] : [{ atMs, body: { ...body, tempC } }]
      return [{ atMs: nowMs, body: { type: 'void' as const, targetId } }, ...right]
    }),
  )
}
</script>

<template>
  <div v-if="farOff" class="doubt" data-testid="far-off">
    <p>
      {{
        farOffSentence(
          Math.exp(facts.learnt!.pace.meanLn),
          at(facts.demould.recommendedS),
          at(farOff.priorOutS),
        )
      }}
    </p>
    <div class="cures">
      <button type="button" @click="choosing = true">Another plaster</button>
      <button type="button" @click="measuring = true">How warm it was</button>
      <button type="button" @click="put({ type: 'scale_doubted' })">The scale</button>
    </div>
  </div>
  <div v-for="doubt in doubts" :key="doubt.key" class="doubt" data-testid="probe-doubt">
    <p>{{ doubt.words }}</p>
    <div class="cures">
      <button v-for="cure in doubt.cures" :key="cure.label" type="button" @click="cure.act">
        {{ cure.label }}
      </button>
    </div>
  </div>
  <PlasterWas v-model="choosing" :plan="facts.plan" @record="put" />
  <MixWasAt v-model="measuring" :facts :pour-id />
</template>

<style scoped>
.doubt {
  display: grid;
  gap: var(--s1);
  background: var(--hot-light);
  color: var(--ink);
  border-left: 6px solid var(--hot);
  border-radius: 0.5rem;
  padding: var(--s1) var(--s3);
  font-weight: 600;
}
.cures {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1) var(--s2);
}
button {
  min-height: 44px;
  padding: 0 var(--s2);
  border-radius: 1.1rem;
  border: 2px solid var(--ink);
  background: transparent;
  color: var(--ink);
  font-weight: 700;
  cursor: pointer;
}
</style>
