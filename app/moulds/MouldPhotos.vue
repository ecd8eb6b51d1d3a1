<script setup lang="ts">
/** Photos of a mould. Usage: <MouldPhotos :mould-id="id" :photos="card.photos" /> */
import { newId } from '~~/shared/newId'
import { Trash, Upload } from '@lucide/vue'
import Button from 'primevue/button'
import { useTemplateRef } from 'vue'
import { usePhotoInput } from '~/parts/form/usePhotoInput'
import { useWorkshop } from '~/stores/workshop'
import { ERROR_WORDS } from '~/parts/words/errors'
import type { Photo } from '~~/shared/photos'

const props = defineProps<{ mouldId: string; photos: Photo[] }>()
const workshop = useWorkshop()
const fileInput = useTemplateRef('fileInput')
const { busy, problem, pick } = usePhotoInput((file) =>
  workshop.addPhoto(props.mouldId, newId(), file, file.name.replace(/\.\w+$/, '').slice(0, 200)),
)
async function remove(id: string) {
  const answer = await workshop.deletePhoto(props.mouldId, id)
  if (!answer.ok) problem.value = ERROR_WORDS[answer.failure.code]
}
</script>

<template>
  <div class="photos">
    <div class="grid">
      <figure v-for="photo in photos" :key="photo.id">
        <a :href="`/api/photos/${photo.id}`" target="_blank" rel="noopener">
          <img
            :src="`/api/photos/${photo.id}?size=thumb`"
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
    <p v-if="photos.length === 0" class="soft">No photo yet. Where a picture was taken is removed from it.</p>
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
