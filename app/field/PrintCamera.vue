<script setup lang="ts">
/**
 * The camera, looking down: whether it does so, glare, blur and dark, and the box a print should fill. Where there is none,
 * or it is refused, the device's own camera or a file.
 * Usage: <PrintCamera @taken="({ file, tiltDeg }) => …" />
 */
import { Camera, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, useTemplateRef } from 'vue'
import { MIDDLE, lookOf, tiltFromDownDeg, type FrameFault } from '#core/field'
import { greyIn } from './grey'
import { FRAME_FAULT_WORDS } from '~/parts/field/words'

const emit = defineEmits<{ taken: [photo: { file: File; tiltDeg: number | null }] }>()
const video = useTemplateRef('video')
const input = useTemplateRef('input')
const stream = shallowRef<MediaStream>()
const refused = ref('')
/** A camera takes a while to wake: there is no frame to be taken before it has shown one. */
const isAwake = ref(false)
const tiltDeg = ref<number | null>(null)
const faults = ref<FrameFault[]>([])

/** Judged at this width: what matters of a frame is coarse. */
const LOOK_PX = 240
const LOOK_MS = 600

useEventListener('deviceorientation', (event: DeviceOrientationEvent) => {
  if (event.beta !== null && event.gamma !== null) tiltDeg.value = tiltFromDownDeg(event.beta, event.gamma)
})

async function open() {
  refused.value = ''
  try {
    stream.value = await navigator.mediaDevices.getUserMedia({
      video: { facingMode: 'environment', width: { ideal: 4096 }, height: { ideal: 3072 } },
    })
    video.value!.srcObject = stream.value
    await video.value!.play()
    isAwake.value = stream.value !== undefined
    looking.resume()
  } catch {
    refused.value =
      'The camera is not to be had here: it was refused, or there is none. Take the photograph with the device’s own camera and choose it.'
    close()
  }
}
function close() {
  looking.pause()
  stream.value?.getTracks().forEach((track) => track.stop())
  stream.value = undefined
  isAwake.value = false
}
const looking = useIntervalFn(
  () => {
    const shown = video.value
    if (!shown?.videoWidth) return
    const height = Math.round((LOOK_PX * shown.videoHeight) / shown.videoWidth)
    faults.value = lookOf(greyIn(shown, LOOK_PX, height), tiltDeg.value).faults
  },
  LOOK_MS,
  { immediate: false },
)
onBeforeUnmount(close)

async function take() {
  const shown = video.value!
  const canvas = new OffscreenCanvas(shown.videoWidth, shown.videoHeight)
  canvas.getContext('2d')!.drawImage(shown, 0, 0)
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 })
  emit('taken', { file: new File([blob], 'print.jpg', { type: blob.type }), tiltDeg: tiltDeg.value })
  close()
}
function pick() {
  for (const file of input.value?.files ?? []) emit('taken', { file, tiltDeg: null })
  input.value!.value = ''
}
const level = computed(() =>
  tiltDeg.value === null ? undefined : `${Math.round(tiltDeg.value)}° from straight down`,
)
</script>

<template>
  <div class="camera">
    <div v-show="stream" class="finder">
      <video ref="video" muted playsinline aria-label="What the camera sees" />
      <span class="box" :style="{ width: `${MIDDLE * 100}%`, height: `${MIDDLE * 100}%` }" />
      <p class="said" role="status">
        {{ faults.length > 0 ? FRAME_FAULT_WORDS[faults[0]!] : 'Good'
        }}<template v-if="level"> · {{ level }}</template>
      </p>
    </div>
    <p v-if="stream" class="soft small">
      Straight down, no flash, the rule or card flat beside it at a right angle, all of it within the box.
    </p>
    <div class="button-row">
      <Button v-if="stream" :disabled="!isAwake" @click="take"
        ><Camera :size="20" aria-hidden="true" /> Take it</Button
      >
      <Button v-if="stream" severity="secondary" label="Close" @click="close" />
      <Button v-else @click="open"><Camera :size="20" aria-hidden="true" /> Photograph it</Button>
      <Button severity="secondary" @click="input?.click()">
        <Upload :size="20" aria-hidden="true" /> Choose a photograph
      </Button>
      <input
        ref="input"
        type="file"
        accept="image/*"
        multiple
        class="visually-hidden"
        tabindex="-1"
        aria-label="Photograph of the print"
        @change="pick"
      />
    </div>
    <p v-if="refused" class="failure" role="alert">{{ refused }}</p>
  </div>
</template>

<style scoped>
.camera {
  display: grid;
  gap: var(--s3);
}
.finder {
  position: relative;
  background: #10181b;
  border-radius: 0.6rem;
  overflow: hidden;
}
video {
  display: block;
  width: 100%;
  max-height: 70vh;
  object-fit: contain;
}
.box {
  position: absolute;
  inset: 0;
  margin: auto;
  border: 3px dashed #ffffff;
  border-radius: 0.4rem;
  pointer-events: none;
}
.said {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  padding: var(--s2) var(--s3);
  background: rgb(10 20 24 / 0.85);
  color: #ffffff;
  font-weight: 700;
  font-size: 1.15rem;
  max-width: none;
}
</style>
