<script setup lang="ts">
/**
 * Something went wrong in the bowl or the mould: what can still be done, from the real figures of this pour.
 * Usage: <RunFix v-model="open" :facts :step :now-ms @record="put(...$event)" />
 */
import { FIX_WORDS, MAY_WORDS } from '../words'
import { figure } from '~/parts/show/figures'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { checkSlurry, unitsPerAirPct } from '#core/mix'
import { keyingOf } from '#core/mould'
import {
  bowlByRecord,
  fixesFor,
  layerBelow,
  mixInputOf,
  stageOf,
  type EventBody,
  type Fix,
  type LeakPlug,
  type PourOutlook,
  type StepId,
} from '#core/pour'
import { isWeighStep } from '../knock/advance'
import { useProblems } from '~/parts/form/useProblems'
import { useSheetDraft } from '~/parts/form/useSheetDraft'
import { useUnits } from '~/parts/show/useUnits'
import { KEYING_WORDS } from '~/parts/words/mould'

const props = defineProps<{ facts: PourOutlook; step: StepId | undefined; nowMs: number }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ record: [bodies: EventBody[]] }>()
const units = useUnits()

const waterG = ref<number>(0)
const powderG = ref<number>(0)
const checkG = ref<number>()
const checkMl = ref<number>()
const missingMl = ref<number>(0)
const { note, clear, none } = useProblems()
/** What the record said when it was last looked at: figures that nobody has touched follow it. */
let told = { waterG: 0, powderG: 0 }
watch(
  () => (open.value ? bowlByRecord(props.facts) : undefined),
  (bowl) => {
    if (!bowl) return
    if (waterG.value === told.waterG) waterG.value = bowl.waterG
    if (powderG.value === told.powderG) powderG.value = bowl.powderG
    told = bowl
  },
)
const { settled } = useSheetDraft(open, () => `${props.step} ${props.facts.batch}`, fill)
function fill() {
  told = bowlByRecord(props.facts)
  waterG.value = told.waterG
  powderG.value = told.powderG
  checkG.value = checkMl.value = undefined
  lostMl.value = 0
  plug.value = props.facts.plan.mould.kind === 'ground' ? 'mud' : 'clay'
  missingMl.value = Math.max(1, Math.round(props.facts.plan.mould.cavityMl * 0.1))
  clear()
}

const inBatch = computed(() => (props.facts.batch > 0 ? { batch: props.facts.batch } : {}))
const beforeStir = computed(() => props.facts.inHand.doneAtMs.stir === undefined)
const stage = computed(() => props.facts.next && stageOf(props.facts.next))
const inMould = computed(() => stage.value === 'pour' || stage.value === 'demould')
const weighing = computed(() => isWeighStep(props.step))
/** A slurry can be weighed once it is stirred, while there is any left to scoop. */
const checkable = computed(() => {
  const { doneAtMs } = props.facts.inHand
  return !beforeStir.value && stage.value === 'pour' && !doneAtMs.pour && !doneAtMs.build
})

const advice = computed(() =>
  fixesFor(props.facts, { waterG: waterG.value, powderG: powderG.value }, props.nowMs),
)
const offPct = computed(() => Math.round(100 * (advice.value.consistency / advice.value.planned - 1)))

const readJug = computed(() => {
  if (checkG.value === undefined || checkMl.value === undefined || !none.value) return undefined
  return { massG: checkG.value, volumeMl: checkMl.value, mix: mixInputOf(props.facts.plan) }
})
const checked = computed(
  () => readJug.value && checkSlurry(readJug.value.mix, readJug.value.massG, readJug.value.volumeMl),
)
const airPoints = computed(
  () => readJug.value && unitsPerAirPct(readJug.value.mix, readJug.value.massG, readJug.value.volumeMl),
)

function send(...bodies: EventBody[]) {
  emit('record', bodies)
  settled()
  open.value = false
}
/** What is really in the bowl is recorded first, where it is not what the record says. */
function reweighed(): EventBody[] {
  const bowl = bowlByRecord(props.facts)
  const differs = (a: number, b: number) => Math.abs(a - b) > 1e-6
  return [
    ...(differs(waterG.value, bowl.waterG)
      ? [{ type: 'weighed' as const, what: 'water' as const, massG: waterG.value, ...inBatch.value }]
      : []),
    ...(differs(powderG.value, bowl.powderG)
      ? [{ type: 'weighed' as const, what: 'powder' as const, massG: powderG.value, ...inBatch.value }]
      : []),
  ]
}
function apply(fix: Fix) {
  const corrected = { type: 'corrected' as const, how: fix.how, massG: fix.massG, ...inBatch.value }
  // Plaster that is still to be weighed is weighed to the water.
  const isToCome = props.facts.inHand.inBowl.powderG === undefined && fix.how.startsWith('powder')
  const follows = { type: 'powder_follows' as const, follows: true, ...inBatch.value }
  send(...reweighed(), isToCome ? follows : corrected)
}
const keepCheck = () =>
  send({ type: 'slurry_checked', massG: checkG.value!, volumeMl: checkMl.value!, ...inBatch.value })
const runShort = () => send({ type: 'ran_short', missingMl: missingMl.value, ...inBatch.value })

const lostMl = ref<number>(0)
const plug = ref<LeakPlug>('clay')
const keying = computed(() => keyingOf(layerBelow(props.facts, props.nowMs)).map((k) => KEYING_WORDS[k]))
</script>

<template>
  <SheetDialog v-model="open" title="Put it right">
    <section v-if="!inMould || checkable">
      <h3>In the bowl</h3>
      <div v-if="beforeStir" class="pair">
        <QuantityField
          v-model="waterG"
          kind="mass"
          water
          label="Water really in it"
          :min="0.1"
          :max="1000000"
          @problem="note('water', $event)"
        />
        <QuantityField
          v-model="powderG"
          kind="mass"
          label="Plaster really in it, or beside it"
          :min="0.1"
          :max="1000000"
          @problem="note('powder', $event)"
        />
      </div>
      <p data-testid="fix-state">
        <b>{{ figure(advice.consistency) }} of water to 100</b>, the plan says {{ figure(advice.planned)
        }}<template v-if="Math.abs(offPct) > 2">
          ({{ Math.abs(offPct) }} % too {{ offPct > 0 ? 'thin' : 'stiff' }})</template
        >. {{ advice.fixes.length > 0 || advice.may === 'never' ? MAY_WORDS[advice.may] : 'Near enough.' }}
      </p>
      <ul v-if="advice.fixes.length > 0" class="fixes">
        <li v-for="fix in advice.fixes" :key="fix.how">
          <span>
            <b>{{ FIX_WORDS[fix.how] }}: {{ units.mass(fix.massG) }}</b>
            <small>
              Makes {{ units.volume(fix.slurryMl) }}:
              {{
                fix.leftMl >= 0
                  ? `the mould takes it, ${units.roughVolume(fix.leftMl)} over`
                  : `${units.roughVolume(-fix.leftMl)} short of the mould`
              }}<template v-if="fix.bowlTakes === false">; the bowl is too small for it</template
              ><template v-else-if="fix.bowlTakes">; the bowl takes it</template>.
            </small>
          </span>
          <Button
            label="Done"
            :aria-label="`${FIX_WORDS[fix.how]}: done`"
            :disabled="!none"
            @click="apply(fix)"
          />
        </li>
      </ul>
    </section>
    <section v-if="checkable">
      <h3>Too thick or too thin? Weigh it</h3>
      <div class="pair">
        <QuantityField
          v-model="checkMl"
          kind="volume"
          label="A jug of slurry holds"
          optional
          :min="10"
          :max="20000"
          @problem="note('checkMl', $event)"
        />
        <QuantityField
          v-model="checkG"
          kind="mass"
          label="Its slurry weighs"
          optional
          :min="5"
          :max="60000"
          @problem="note('checkG', $event)"
        />
      </div>
      <p v-if="checked" data-testid="checked">
        It is <b>{{ figure(checked.mid) }}</b> ({{ figure(checked.low) }}–{{ figure(checked.high) }}) of water
        to 100<template v-if="airPoints"
          >; each percent of air more than thought reads {{ figure(airPoints) }} too high</template
        >.
      </p>
      <p v-else-if="checkG !== undefined && checkMl !== undefined && none" class="warn" role="alert">
        No slurry of this plaster weighs that: look at jug and scale again.
      </p>
      <Button label="Reckon with that" :disabled="!checked" severity="secondary" @click="keepCheck" />
    </section>
    <section v-if="inMould">
      <h3>Short in the mould</h3>
      <QuantityField
        v-model="missingMl"
        kind="volume"
        label="About this much is missing"
        rough
        :min="1"
        :max="500000"
        @problem="note('missing', $event)"
      />
      <p>Another bowl for it, at once: {{ keying.join('; ') }}.</p>
      <Button label="Mix another bowl" :disabled="!none" @click="runShort" />
    </section>
    <RunLeak
      v-if="inMould"
      v-model:lost-ml="lostMl"
      v-model:plug="plug"
      :facts="facts"
      :sound="none"
      @problem="note('lost', $event)"
      @record="send(...$event)"
    />
    <section v-if="weighing && !facts.scaleFailed">
      <h3>The scale has failed</h3>
      <p>Go on by jug and scoop: the amounts follow, and the times get wider.</p>
      <Button severity="secondary" label="Go on by volume" @click="send({ type: 'scale_failed' })" />
    </section>
  </SheetDialog>
</template>

<style scoped>
section {
  display: grid;
  gap: var(--s3);
}
h3 {
  font-size: 1.1rem;
}
.fixes {
  list-style: none;
  margin: 0;
  padding: 0;
}
.fixes li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s3);
  border-top: 1px solid var(--line);
  padding: var(--s2) 0;
}
small {
  display: block;
}
.warn {
  font-weight: 600;
  color: var(--hot);
}
</style>
