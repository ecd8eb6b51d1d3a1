<script setup lang="ts">
/** The whole workshop out as one file, and a file in: looked at, asked about, then read in. Usage: <WorkshopFiles /> */
import { Download, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { useKeptHere } from '~/stores/kept'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef } from 'vue'
import type { BundleJob, BundleKind } from '~~/shared/bundle'
import { counted } from '~/parts/show/counted'
import { ERROR_WORDS } from '~/parts/words/errors'
import type { ApiFailure } from '~/stores/api'
import {
  applyImport,
  beginExport,
  beginImport,
  bundleNow,
  endBundle,
  fetchBundle,
  followBundle,
} from '~/stores/bundles'
import { useConnection } from '~/stores/connection'
import { BUNDLE_KIND_WORDS } from './bundleWords'

const connection = useConnection()
const job = shallowRef<BundleJob>()
const sending = ref(false)
const failure = ref('')
const fileInput = useTemplateRef('fileInput')
let following: { stop: () => void } | undefined

/** Found again after the page was left or loaded anew. */
const underWay = useKeptHere('nine-ripples.bundle', '')
const saying = (code: ApiFailure['code'] | undefined) => ERROR_WORDS[code ?? 'internal']
function follow(begun: BundleJob) {
  job.value = begun
  underWay.value = begun.id
  following = followBundle(begun.id, (now) => {
    job.value = now
    if (now.state === 'failed') {
      failure.value = saying(now.failure)
      job.value = undefined
      underWay.value = ''
    } else if (now.state === 'ready' && now.kind === 'export') fetchBundle(now.id)
    else if (now.state === 'done') void connection.load()
  })
}
async function out() {
  failure.value = ''
  const answer = await beginExport({ of: 'workshop' })
  if (answer.ok) follow(answer.value)
  else failure.value = saying(answer.failure.code)
}
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  failure.value = ''
  sending.value = true
  const answer = await beginImport(file)
  sending.value = false
  if (answer.ok) follow(answer.value)
  else failure.value = saying(answer.failure.code)
}
async function readIn(clashes: 'keep' | 'take') {
  const { id } = job.value!
  const answer = await applyImport(id, clashes)
  if (answer.ok) follow(answer.value)
  else failure.value = saying(answer.failure.code)
}
async function giveUp() {
  following?.stop()
  const id = job.value?.id
  job.value = undefined
  underWay.value = ''
  if (id) await endBundle(id)
}
onMounted(async () => {
  if (!underWay.value) return
  const known = await bundleNow(underWay.value)
  if (!known) underWay.value = ''
  else if (known.state === 'running' || known.state === 'failed') follow(known)
  else job.value = known
})
onBeforeUnmount(() => following?.stop())

const share = computed(() => {
  const { done, total } = job.value ?? { done: 0, total: 0 }
  return total > 0 ? Math.min(100, Math.round((100 * done) / total)) : 0
})
const lines = computed(() =>
  Object.entries(job.value?.report?.counts ?? {}).map(([kind, n]) => ({ kind: kind as BundleKind, ...n })),
)
const adds = computed(() => lines.value.reduce((sum, l) => sum + l.add + l.grow, 0))
const clashing = computed(() => lines.value.reduce((sum, l) => sum + l.clash, 0))
</script>

<template>
  <p class="soft">
    Everything in one zip file: cards and pours as JSON by published schemas, photographs, and every table as
    CSV. Read in again, it adds what is not here and takes nothing away.
  </p>
  <div class="button-row">
    <Button type="button" severity="secondary" :disabled="!!job || sending" @click="out"
      ><Download :size="18" aria-hidden="true" />The whole workshop, as a file</Button
    >
    <input
      ref="fileInput"
      type="file"
      accept=".zip,application/zip"
      class="visually-hidden"
      tabindex="-1"
      aria-label="Workshop file"
      @change="take"
    />
    <Button type="button" severity="secondary" :disabled="!!job || sending" @click="fileInput?.click()"
      ><Upload :size="18" aria-hidden="true" />{{ sending ? 'Coming in…' : 'Read a file in' }}</Button
    >
  </div>
  <div v-if="job" class="job" role="status">
    <template v-if="job.state === 'running'">
      <p v-if="job.ahead > 0">
        In line: {{ counted(job.ahead, 'other file') }} {{ job.ahead === 1 ? 'comes' : 'come' }} first.
      </p>
      <p v-else>
        {{ job.kind === 'export' ? 'Writing' : 'Reading' }}: {{ job.done }} of {{ job.total || '…' }} files
      </p>
      <ProgressBar :value="share" :show-value="false" :aria-label="`${share} %`" />
      <Button type="button" severity="secondary" label="Stop" @click="giveUp" />
    </template>
    <template v-else-if="job.kind === 'export'">
      <p>It is written. <a :href="`/api/bundles/${job.id}/file`" download>Fetch it again</a></p>
      <p v-if="job.leftOut && job.leftOut.length > 0" class="clash">
        {{ counted(job.leftOut.length, 'thing') }} could not be taken along so that it can be read in again:
        {{
          job.leftOut
            .map((l) => l.file)
            .slice(0, 5)
            .join(', ')
        }}{{ job.leftOut.length > 5 ? ' …' : '' }}. The file itself lists them, in left-out.json.
      </p>
      <Button type="button" severity="secondary" label="Done with it" @click="giveUp" />
    </template>
    <template v-else-if="job.report">
      <p>
        <b>{{ job.name }}</b
        >{{
          job.state === 'done'
            ? ': read in.'
            : job.report.manifest.of === 'workshop'
              ? ''
              : `: one ${job.report.manifest.of}`
        }}
      </p>
      <table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">{{ job.state === 'done' ? 'added' : 'new' }}</th>
            <th scope="col">more to tell</th>
            <th scope="col">the same</th>
            <th scope="col">otherwise here</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in lines" :key="l.kind">
            <th scope="row">{{ BUNDLE_KIND_WORDS[l.kind] }}</th>
            <td>{{ l.add }}</td>
            <td>{{ l.grow || '' }}</td>
            <td>{{ l.same }}</td>
            <td :class="{ clash: l.clash > 0 }">{{ l.clash || '' }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="clashing > 0 && job.state !== 'done'">
        Here and in the file, and not the same:
        {{
          job.report.clashes
            .map((c) => c.name)
            .slice(0, 8)
            .join(', ')
        }}{{ clashing > 8 ? ' …' : '' }}. A pour stays as it is here in any case.
      </p>
      <p v-if="job.report.unreadable.length > 0" class="clash">
        {{ counted(job.report.unreadable.length + job.report.moreUnreadable, 'thing') }} cannot be read:
        {{
          job.report.unreadable
            .map((u) => u.file)
            .slice(0, 5)
            .join(', ')
        }}
      </p>
      <div class="button-row">
        <template v-if="job.state === 'ready'">
          <Button
            type="button"
            :label="clashing > 0 ? 'Read it in, mine stay' : 'Read it in'"
            :disabled="adds === 0 && clashing === 0"
            @click="readIn('keep')"
          />
          <Button
            v-if="clashing > 0"
            type="button"
            severity="secondary"
            label="Read it in, the file’s take their place"
            @click="readIn('take')"
          />
        </template>
        <Button
          type="button"
          severity="secondary"
          :label="job.state === 'done' ? 'Good' : 'Leave it'"
          @click="giveUp"
        />
      </div>
    </template>
  </div>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
.job {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.job :deep(.p-progressbar) {
  width: 100%;
}
table {
  border-collapse: collapse;
  width: 100%;
  max-width: 40rem;
}
th,
td {
  text-align: right;
  padding: 0.3rem 0 0.3rem var(--s3);
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
th:first-child {
  text-align: left;
  padding-left: 0;
}
.clash {
  color: var(--warm-ink);
  font-weight: 700;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
</style>
