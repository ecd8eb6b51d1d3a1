<script setup lang="ts">
/** While it dries: weigh it, feel it, or say that it is finished. Usage: <RunDry :facts :now-ms @record="put" @finish /> */
import { computed, ref } from 'vue'
import { isInPlay, type EventBody, type PourOutlook } from '#core/pour'
import { usePieces } from '~/parts/pour/usePieces'
import { useUnits } from '~/parts/show/useUnits'
import { momentText } from '~/parts/show/time'
import { useDevices } from '~/stores/devices'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{ facts: PourOutlook; nowMs: number }>()
const emit = defineEmits<{ record: [body: EventBody]; finish: [] }>()
const units = useUnits()
const workshop = useWorkshop()
const devices = useDevices()

const left = computed(() => props.facts.pieces.filter(isInPlay))
const { chosen, said, none } = usePieces(left)

const massG = ref<number>()
const problem = ref('')
/** The field begins anew with each weighing. */
const weighed = ref(0)

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
  emit('record', {
    type: 'weighing',
    massG: shownG,
    ...said.value,
    reading: { device: id, channel: 'mass', atMs },
  })

function weigh() {
  if (massG.value === undefined || problem.value) return
  emit('record', { type: 'weighing', massG: massG.value, ...said.value })
  massG.value = undefined
  weighed.value++
}
</script>

<template>
  <section class="pool dry" aria-label="Its next weighing">
    <form class="weigh" @submit.prevent="weigh">
      <WhichPieces v-model="chosen" label="On the scale" :pieces="left" />
      <QuantityField
        :key="weighed"
        v-model="massG"
        kind="mass"
        label="It weighs now"
        large
        optional
        :min="0.1"
        :max="1000000"
        @problem="problem = $event"
      />
      <button type="submit" :disabled="massG === undefined || problem !== '' || none">
        Record this weighing
      </button>
    </form>
    <button v-for="s in scales" :key="s.id" type="button" class="second" :disabled="none" @click="take(s)">
      {{ s.name }} shows {{ units.mass(s.massG)
      }}<template v-if="s.zeroedAtMs !== null"
        >, less what was on it when it was zeroed, {{ momentText(s.zeroedAtMs, props.nowMs) }}</template
      >: take it
    </button>
    <div class="others">
      <p id="by-hand">By hand:</p>
      <button
        type="button"
        class="second"
        aria-describedby="by-hand"
        @click="emit('record', { type: 'felt_dry', clammy: true })"
      >
        Cold and clammy
      </button>
      <button
        type="button"
        class="second"
        aria-describedby="by-hand"
        @click="emit('record', { type: 'felt_dry', clammy: false })"
      >
        Not any more
      </button>
      <button type="button" class="second finish" @click="emit('finish')">It is finished</button>
    </div>
  </section>
</template>

<style scoped>
.dry {
  gap: var(--s3);
}
.weigh {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(9rem, 100%), 1fr));
  gap: var(--s3);
  align-items: end;
}
button {
  min-width: 0;
  min-height: 3.4rem;
  padding: 0 var(--s3);
  border-radius: 1.4rem;
  border: 0;
  background: var(--wet-light);
  color: var(--ink);
  font-weight: 700;
  font-size: 1.1rem;
  line-height: 1.15;
  cursor: pointer;
}
button:disabled {
  background: #46575c;
  color: #d5dcdd;
  cursor: default;
}
.others {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.second {
  min-height: 44px;
  background: transparent;
  border: 2px solid currentColor;
  color: inherit;
  font-size: 1rem;
}
.finish {
  margin-left: auto;
}
:deep(.problem) {
  color: #ffb9a3;
}
</style>
