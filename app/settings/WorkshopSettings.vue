<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { LEAST_SCOOP_ML, MOST_SCOOP_ML } from '#core/bounds'
import type { Settings, SettingsRecord } from '~~/shared/contracts'
import { useConflict } from '~/parts/form/useConflict'
import { usePreferences, type Look } from '~/parts/show/usePreferences'
import { useUnits } from '~/parts/show/useUnits'
import { useLearning } from '~/stores/learning'
import { may, me } from '~/stores/me'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { settingsLines } from '~/parts/form/cardLines'
import { decimalSignOf } from '~/parts/form/quantityWords'
import { ERROR_WORDS } from '~/parts/words/errors'

const workshop = useWorkshop()
const pours = usePours()
const learning = useLearning()
await workshop.ready

/** Whoever works here, once the name has been written to its end: how they sift is learnt. */
const hand = refDebounced(
  computed(() => pours.hand),
  600,
)
watch(hand, (known) => known && void learning.load(`person:${known}`), { immediate: true })

const inputOf = ({ revision: _, ...settings }: SettingsRecord): Settings => settings
const form = ref<Settings>(inputOf(workshop.settings))
/** What it was when it was last shown, and its revision. */
const was = ref(inputOf(workshop.settings))
const seen = ref<number | null>(workshop.settings.revision)
// Somebody else's change shows here too, unless this one is under way.
const dirty = computed(() => JSON.stringify(form.value) !== JSON.stringify(was.value))
watch(
  () => workshop.settings,
  (now) => {
    if (!dirty.value) take(now)
  },
)
function take(record: SettingsRecord) {
  seen.value = record.revision
  was.value = inputOf(record)
  form.value = inputOf(record)
}
const { theirs, meets, keepMine, takeTheirs } = useConflict<SettingsRecord>({ seen, keep: save, show: take })
const units = useUnits()

const SYSTEMS = [
  { value: 'metric', label: 'Metric' },
  { value: 'us', label: 'US' },
  { value: 'imperial', label: 'Imperial' },
]
const SIGNS = [
  { value: 'ask', label: 'Ask me' },
  { value: 'point', label: '1,500.5' },
  { value: 'comma', label: '1.500,5' },
]
const decimalSign = computed({
  get: () => form.value.decimalSign ?? 'ask',
  set: (sign) => (form.value.decimalSign = sign === 'ask' ? null : sign),
})
const guessed = SIGNS.find((s) => s.value === decimalSignOf(navigator.language))!.label
const KITCHENS = [
  { value: 'ask', label: 'Ask me' },
  { value: 'us', label: 'American: cup 236.6 ml, pint 473 ml' },
  { value: 'imperial', label: 'The rest: cup 250 ml, pint 568 ml' },
]
const kitchen = computed({
  get: () => form.value.kitchen ?? 'ask',
  set: (size) => (form.value.kitchen = size === 'ask' ? null : size),
})
const problems = ref<Record<string, string>>({})
const preferences = usePreferences()
const ANY_KEY = [
  { value: 'on', label: 'Any key goes on' },
  { value: 'off', label: 'Only the large button' },
]
const anyKey = computed({
  get: () => (preferences.anyKey.value ? 'on' : 'off'),
  set: (v) => (preferences.anyKey.value = v === 'on'),
})
const LOOK: { value: Look; label: string }[] = [
  { value: 'workshop', label: 'Indoors' },
  { value: 'glare', label: 'In the sun' },
  { value: 'dim', label: 'In the dark' },
]
const { look } = preferences
const SOUND = [
  { value: 'on', label: 'Rings and is said' },
  { value: 'off', label: 'Is only shown' },
]
const sound = computed({
  get: () => (preferences.sound.value ? 'on' : 'off'),
  set: (v) => (preferences.sound.value = v === 'on'),
})
const said = ref('')
const failure = ref('')
const valid = computed(
  () =>
    Object.values(problems.value).every((p) => p === '') &&
    form.value.workshopName.trim() !== '' &&
    form.value.currency.trim() !== '',
)

async function save() {
  if (!valid.value) return
  said.value = failure.value = ''
  const answer = await workshop.saveSettings(seen.value!, {
    ...form.value,
    workshopName: form.value.workshopName.trim(),
  })
  if (answer.ok) {
    take(answer.value)
    said.value = 'Kept.'
  } else if (!meets(answer.failure)) failure.value = ERROR_WORDS[answer.failure.code]
}
</script>

<template>
  <div class="page">
    <h1>Settings</h1>
    <section v-if="me" class="slab" aria-labelledby="s-me">
      <h2 id="s-me">You</h2>
      <MeHere :me />
    </section>
    <form class="kept" novalidate @submit.prevent="save">
      <section class="slab" aria-labelledby="s-workshop">
        <h2 id="s-workshop">Workshop</h2>
        <div class="fields">
          <label class="field"
            ><span>Its name</span><InputText v-model="form.workshopName" maxlength="120"
          /></label>
          <label class="field"
            ><span>Who works at this device</span>
            <InputText v-model="pours.who" maxlength="60" :disabled="me !== undefined" />
            <small class="soft">{{
              me ? 'You were let in as this.' : 'Written beside what is recorded here.'
            }}</small>
          </label>
        </div>
        <LearntNote v-if="hand" :name="pours.who.trim()" :subject="`person:${hand}`" factor="sprinkled" />
      </section>
      <section class="slab" aria-labelledby="s-units">
        <h2 id="s-units">Units</h2>
        <ChoicePills v-model="form.system" label="Units" :options="SYSTEMS" />
        <LabelledPills
          v-model="decimalSign"
          label="How this workshop writes fifteen hundred and a half"
          :options="SIGNS"
        />
        <p class="soft">
          This browser writes {{ guessed }}. Until you say, what could be read either way is asked about.
        </p>
        <LabelledPills
          v-if="form.system === 'metric'"
          v-model="kitchen"
          label="Whose cups and pints"
          :options="KITCHENS"
        />
        <div class="fields">
          <QuantityField
            :model-value="form.scoopMl ?? undefined"
            kind="volume"
            label="The cup it is measured with"
            optional
            :min="LEAST_SCOOP_ML"
            :max="MOST_SCOOP_ML"
            @update:model-value="form.scoopMl = $event ?? null"
            @problem="problems.scoop = $event"
          />
          <QuantityField
            v-model="form.scaleDivisionG"
            kind="number"
            :decimals="2"
            label="The scale’s smallest step"
            suffix="g"
            :min="0.01"
            :max="1000"
            @problem="problems.scale = $event"
          />
          <QuantityField
            :model-value="form.scaleCapacityG ?? undefined"
            kind="mass"
            label="Most it takes"
            optional
            :min="10"
            :max="2000000"
            @update:model-value="form.scaleCapacityG = $event ?? null"
            @problem="problems.capacity = $event"
          />
          <label class="field"
            ><span>Prices are in</span><InputText v-model="form.currency" maxlength="6"
          /></label>
        </div>
        <p class="soft">
          Amounts are rounded to what the scale can show, and split where it cannot take them.
        </p>
      </section>
      <section class="slab" aria-labelledby="s-air">
        <h2 id="s-air">Usual room and tap</h2>
        <div class="fields">
          <QuantityField
            v-model="form.roomTempC"
            kind="temp"
            label="Room"
            :min="-10"
            :max="50"
            @problem="problems.room = $event"
          />
          <QuantityField
            v-model="form.tapTempC"
            kind="temp"
            label="Cold tap"
            :min="1"
            :max="45"
            @problem="problems.tap = $event"
          />
          <QuantityField
            v-model="form.hotTapTempC"
            kind="temp"
            label="Hot tap"
            :min="1"
            :max="95"
            @problem="problems.hot = $event"
          />
          <QuantityField
            v-model="form.roomRhPct"
            kind="number"
            label="Humidity"
            suffix="%"
            :min="1"
            :max="96"
            @problem="problems.rh = $event"
          />
          <QuantityField
            v-model="form.airSpeedMS"
            kind="number"
            :decimals="1"
            label="Air speed"
            suffix="m/s"
            :min="0.1"
            :max="10"
            @problem="problems.air = $event"
          />
        </div>
        <p class="soft">New plans start from these. Still room air is about 0.1 m/s, a fan about 1.5.</p>
      </section>
      <ConflictNote
        v-if="theirs"
        :mine="settingsLines(form, units)"
        :theirs="settingsLines(theirs, units)"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <div class="act">
        <Button v-if="may('keep')" type="submit" label="Keep these" :disabled="!valid || !dirty" />
        <p v-else class="soft">Whoever keeps the workshop changes these.</p>
        <p role="status">{{ said }}</p>
        <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      </div>
    </form>
    <section class="slab" aria-labelledby="s-run">
      <h2 id="s-run">At the bench</h2>
      <LabelledPills v-model="anyKey" label="In the run, on this device" :options="ANY_KEY" />
      <LabelledPills v-model="sound" label="What falls due" :options="SOUND" />
      <LabelledPills v-model="look" label="The light here, on this device" :options="LOOK" />
    </section>
    <section class="slab" aria-labelledby="s-bowls">
      <h2 id="s-bowls">Bowls</h2>
      <BowlShelf />
    </section>
    <section class="slab" aria-labelledby="s-places">
      <h2 id="s-places">Places to dry in</h2>
      <PlaceShelf />
    </section>
    <section v-if="may('keep')" class="slab" aria-labelledby="s-people">
      <h2 id="s-people">People and devices</h2>
      <p>
        Phones and tablets are let in by name. <NuxtLink to="/people">Who works here, and where</NuxtLink>
      </p>
    </section>
    <section v-if="may('keep')" class="slab" aria-labelledby="s-files">
      <h2 id="s-files">The whole workshop</h2>
      <WorkshopFiles />
    </section>
    <section v-if="may('keep')" class="slab" aria-labelledby="s-safe">
      <h2 id="s-safe">Kept safe</h2>
      <BackupState />
    </section>
    <section v-if="may('own')" class="slab" aria-labelledby="s-here">
      <h2 id="s-here">Workshops on this server</h2>
      <WorkshopsHere />
    </section>
    <p><NuxtLink to="/safety">Cautions, in full</NuxtLink></p>
  </div>
</template>

<style scoped>
.page {
  max-width: 56rem;
}
.kept {
  display: grid;
  gap: inherit;
}
.slab {
  display: grid;
  gap: var(--s3);
}
.fields {
  display: grid;
  align-items: start;
  gap: var(--s4);
  grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.act {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s4);
}
</style>
