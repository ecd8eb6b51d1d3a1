<script setup lang="ts">
/** On a device that was let in: who is on it, and the way off it. Usage: <MeHere v-if="me" :me /> */
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { Me } from '~~/shared/people'
import { counted } from '~/parts/show/counted'
import { failureWords } from '~/parts/words/errors'
import { ROLE_WORDS, mayWords } from '~/parts/words/roles'
import { leaveDevice } from '~/stores/leave'
import { useOutbox } from '~/stores/outbox'
import { usePhotos } from '~/stores/photos'

defineProps<{ me: Extract<Me, { at: 'network' }> }>()
const outbox = useOutbox()
const photos = usePhotos()
/** Only here as yet: it would be lost. */
const waiting = computed(() => outbox.unsent.length + outbox.refused.length + photos.waiting.size)
const asks = ref(false)
const failure = ref('')
async function leave() {
  const answer = await leaveDevice()
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}
</script>

<template>
  <p>
    <b>{{ me.name }}</b>, {{ ROLE_WORDS[me.role].toLowerCase() }}, on {{ me.device.toLowerCase() }}.
    {{ mayWords(me.role) }}
  </p>
  <p v-if="asks">
    Nothing of yours can be read on this device then<template v-if="waiting > 0"
      >, and
      <b>{{ counted(waiting, 'thing') }} that you recorded here and the workshop does not have</b> would be
      lost</template
    >. To come back you need another code.
  </p>
  <div class="acts">
    <Button v-if="!asks" type="button" severity="secondary" label="Leave this device" @click="asks = true" />
    <template v-else>
      <button type="button" class="ghost" @click="leave">
        {{ waiting > 0 ? 'Leave, and lose them' : 'Yes, leave' }}
      </button>
      <button type="button" class="ghost" @click="asks = false">Stay</button>
    </template>
  </div>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
</style>
