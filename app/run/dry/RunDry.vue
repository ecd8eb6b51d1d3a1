<script setup lang="ts">
/** While it dries: weigh it, hear how far it is. Usage: <RunDry :facts :now-ms @weigh @finish /> */
import { computed, ref } from 'vue'
import type { PourOutlook, ReadingRef } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { counted } from '~/parts/show/counted'
import { dryingLeft } from '~/parts/pour/dryingLeft'
import { momentText } from '~/parts/show/time'
import { DRY_TARGET_WORDS } from '~/parts/words/pour'
import { useDevices } from '~/stores/devices'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const emit = defineEmits<{
  weigh: [massG: number, reading?: ReadingRef]
  feel: [clammy: boolean]
  takeBack: [eventId: string]
  finish: []
}>()
const units = useUnits()
const workshop = useWorkshop()
const devices = useDevices()

const massG = ref<number>()
const problem = ref('')
/** The last that does not fit: one question at a time. */
const doubtful = computed(() => props.facts.drying!.weighings.filter((w) => w.doubtful).slice(-1))
const weighedAt = (timeS: number) => momentText(props.facts.drying!.startMs + timeS * 1000, props.nowMs)
/** When the next weighing tells most, where that is still ahead; the clock says when it is due. */
const weighLater = computed(() => {
  const { weighNext, weighings, startMs } = props.facts.drying!
  return weighNext && weighings.length > 0 && startMs + weighNext.atS * 1000 > props.nowMs
    ? weighNext.atS
    : undefined
})
const left = computed(() => dryingLeft(props.facts.drying!, props.nowMs))

/** Scales that stand still with something on them and under no bowl: the piece may be put on any. */
const scales = computed(() =>
  workshop.devices.flatMap(({ id, name, uses }) => {
    const says = devices.now.get(id)?.mass
    if (!says?.stable || says.overload || says.massG === null || says.massG < 1) return []
    if (uses.some((u) => u.channel === 'mass')) return []
    const { massG, atMs, zeroedAtMs } = says
    return [{ id, name, massG, atMs, zeroedAtMs }]
  }),
)
const take = ({ id, massG: shownG, atMs }: (typeof scales.value)[number]) =>
  emit('weigh', shownG, { device: id, channel: 'mass', atMs })

function weigh() {
  if (massG.value === undefined || problem.value) return
  emit('weigh', massG.value)
  massG.value = undefined
}
</script>

<template>
  <div class="dry">
    <form class="weigh" @submit.prevent="weigh">
      <QuantityField
        :key="facts.drying!.weighings.length"
        v-model="massG"
        kind="mass"
        label="It weighs now"
        large
        :min="0.1"
        :max="1000000"
        @problem="problem = $event"
      />
      <button type="submit" :disabled="massG === undefined || problem !== ''">Record this weighing</button>
      <button v-for="s in scales" :key="s.id" type="button" class="second" @click="take(s)">
        {{ s.name }} shows {{ units.mass(s.massG)
        }}<template v-if="s.zeroedAtMs !== null"
          >, less what was on it when it was zeroed, {{ momentText(s.zeroedAtMs, nowMs) }}</template
        >: take it
      </button>
      <p class="feel" role="group" aria-label="By hand">
        <span>By hand:</span>
        <button type="button" class="second" @click="emit('feel', true)">Cold and clammy</button>
        <button type="button" class="second" @click="emit('feel', false)">Not any more</button>
      </p>
    </form>
    <div class="say">
      <p class="head">
        {{
          left.dry
            ? `Dry enough by now to ${DRY_TARGET_WORDS[facts.plan.dryTarget]}`
            : `${left.text} to go, to ${DRY_TARGET_WORDS[facts.plan.dryTarget]}`
        }}
      </p>
      <p>
        Expected today: {{ units.mass(left.expectedG) }}.
        {{
          left.weighingsUsed >= 2
            ? `Learnt from ${counted(left.weighingsUsed, 'weighing')}.`
            : 'A model’s guess until there are two weighings.'
        }}
        <template v-if="weighLater !== undefined">
          Weighing it {{ weighedAt(weighLater) }} tells most.
        </template>
      </p>
      <p v-for="w in doubtful" :key="w.eventId" class="doubt" role="status">
        {{ units.mass(w.massG) }}, {{ weighedAt(w.timeS) }}: does that fit? It is far from what the others and
        the mix say, so the forecast hardly counts it.
        <button type="button" class="second" @click="emit('takeBack', w.eventId)">Take it back</button>
      </p>
      <button type="button" class="second" @click="emit('finish')">It is finished</button>
    </div>
  </div>
</template>

<style scoped>
.dry {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--s6);
  align-items: center;
  width: 100%;
  max-width: 64rem;
  margin: 0 auto;
}
.weigh,
.say {
  display: grid;
  gap: var(--s3);
  align-content: center;
}
.head {
  font-family: var(--display);
  font-weight: 700;
  font-size: 1.7rem;
  line-height: 1.1;
}
button {
  min-height: 3.6rem;
  border-radius: 999px;
  border: 0;
  background: var(--wet-light);
  color: var(--ink);
  font-weight: 700;
  font-size: 1.1rem;
  cursor: pointer;
}
button:disabled {
  background: #46575c;
  color: #d5dcdd;
  cursor: default;
}
.doubt {
  display: grid;
  gap: var(--s2);
  border-left: 6px solid var(--warm);
  padding-left: var(--s3);
}
.feel {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.feel .second {
  min-height: 44px;
  padding: 0 var(--s3);
  font-size: 1rem;
}
.second {
  background: transparent;
  border: 2px solid currentColor;
  color: inherit;
}
:deep(.problem) {
  color: #ffb9a3;
}
@media (max-width: 43rem) {
  .dry {
    grid-template-columns: 1fr;
    gap: var(--s4);
  }
}
</style>
