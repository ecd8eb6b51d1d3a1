<script setup lang="ts">
/** Photos of a mould. Usage: <MouldPhotos :mould-id="id" :photos="card.photos" /> */
import { Trash, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { computed, useTemplateRef } from 'vue'
import { usePhotoInput } from '~/parts/form/usePhotoInput'
import { usePhotos } from '~/stores/photos'
import { ERROR_WORDS } from '~/parts/words/errors'
import type { Photo } from '~~/shared/photos'

const props = defineProps<{ mouldId: string; photos: Photo[] }>()
const store = usePhotos()
const shown = computed(() => store.ofMould(props.mouldId, props.photos))
const fileInput = useTemplateRef('fileInput')
const { busy, problem, pick } = usePhotoInput((file) =>
  store.takeOfMould(props.mouldId, file, file.name.replace(/\.\w+$/, '').slice(0, 200)),
)
async function remove(id: string) {
  const answer = await store.removeOfMould(props.mouldId, id)
  if (!answer.ok) problem.value = ERROR_WORDS[answer.failure.code]
}
</script>

<template>
  <div class="photos">
    <div class="grid">
      <figure v-for="photo in shown" :key="photo.id">
        <a :href="store.addressOf(photo.id)" target="_blank" rel="noopener">
          <img
            :src="store.addressOf(photo.id, 'thumb')"
            :alt="photo.caption || 'Photo of the mould'"
            loading="lazy"
          />
        </a>
        <figcaption>
          <span>{{ photo.caption }}</span>
          <Button severity="secondary" :aria-label="`Remove ${photo.caption}`" @click="remove(photo.id)"
            ><Trash :size="18"
          /></Button>
        </figcaption>
      </figure>
    </div>
    <p v-if="shown.length === 0" class="soft">No photo yet. Where a picture was taken is removed from it.</p>
    <input
      ref="fileInput"
      type="file"
      accept="image/*"
      multiple
      class="visually-hidden"
      tabindex="-1"
      aria-label="Photo file"
      @change="pick"
    />
    <Button severity="secondary" :disabled="busy" @click="fileInput?.click()"
      ><Upload :size="18" aria-hidden="true" />{{ busy ? 'Sending…' : 'Add a photo' }}</Button
    >
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.photos {
  display: grid;
  gap: var(--s3);
  justify-items: start;
}
.grid {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  width: 100%;
}
.grid:empty {
  display: none;
}
figure {
  margin: 0;
}
img {
  width: 100%;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 0.6rem;
}
figcaption {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s2);
  font-size: 0.92rem;
  overflow-wrap: anywhere;
}
.problem {
  color: var(--hot);
  font-weight: 600;
}
</style>
