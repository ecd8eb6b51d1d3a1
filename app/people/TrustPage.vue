<script setup lang="ts">
/** How a phone learns to trust this machine, in pictures, and what works before it does. Usage: <TrustPage /> */
import { onMounted, ref } from 'vue'
import { may } from '~/stores/me'
import { isLetIn, lostPlace } from '~/stores/place'
import { usePeople } from '~/stores/people'

const people = usePeople()
const isByNetwork = location.protocol === 'https:'
/** At the machine itself it is fetched from where the network reaches it. */
const address = ref(isByNetwork ? location.origin : null)
onMounted(async () => {
  if (isByNetwork || lostPlace.value || (isLetIn && !may('keep'))) return
  await people.load()
  address.value = people.address
})

const STEPS = [
  {
    picture: 'warning',
    title: 'At first it warns you',
    text: 'This machine vouches for itself, and no phone knows it yet. On your own studio’s network, with the address that stands at the desk, go on: everything works, and is kept from others on the way.',
  },
  {
    picture: 'fetch',
    title: 'Fetch its authority',
    text: 'Open the link below on the phone itself and let it be kept. It is a small file that says who this machine is.',
  },
  {
    picture: 'install',
    title: 'Let the phone trust it',
    text: 'In the phone’s settings look for “certificate”: install it as a certificate authority, or install the profile that waits there and then switch its trust on under “certificate trust”.',
  },
] as const
</script>

<template>
  <div class="page">
    <h1>How a phone learns to trust this machine</h1>
    <ol>
      <li v-for="(step, n) in STEPS" :key="step.picture" class="slab">
        <svg viewBox="0 0 120 150" aria-hidden="true">
          <rect x="22" y="4" width="76" height="142" rx="12" class="phone" />
          <rect x="30" y="18" width="60" height="112" rx="3" class="screen" />
          <template v-if="step.picture === 'warning'">
            <path d="M60 36 82 74H38Z" class="hot" />
            <path d="M60 48v13M60 66v3" class="mark" />
            <rect x="38" y="104" width="44" height="14" rx="7" class="button" />
          </template>
          <template v-else-if="step.picture === 'fetch'">
            <path d="M44 38h24l10 10v36H44Z" class="paper" />
            <path d="M61 54v20M53 67l8 8 8-8" class="mark ink" />
            <path d="M40 104h42" class="mark ink" />
          </template>
          <template v-else>
            <circle cx="60" cy="60" r="19" class="ring" />
            <path d="m50 60 7 8 13-15" class="mark ink" />
            <rect x="46" y="98" width="28" height="15" rx="7.5" class="button" />
            <circle cx="66.500" cy="105.500" r="5.500" class="knob" />
          </template>
        </svg>
        <div>
          <h2>{{ n + 1 }}. {{ step.title }}</h2>
          <p>{{ step.text }}</p>
          <p v-if="step.picture === 'fetch'">
            <a v-if="address" :href="`${address}/authority.crt`" download>The authority of this machine</a>
            <span v-else class="soft"
              >It is there once the workshop is shared: <code>./bin/start --share</code>.</span
            >
          </p>
        </div>
      </li>
    </ol>
    <section class="slab" aria-labelledby="t-before">
      <h2 id="t-before">Before it does</h2>
      <p>
        Planning, mixing, pouring, clocks, photographs and voice all work once you have gone on past the
        warning. The phone asks again now and then, and its browser may keep less of the workshop for times
        without a network.
      </p>
    </section>
    <section class="slab" aria-labelledby="t-after">
      <h2 id="t-after">What you trust with it</h2>
      <p>
        Whoever holds this machine’s key could vouch for any address to that phone. The key lies in the
        workshop’s state folder and nowhere else: keep that folder to yourself, and take the authority off a
        phone that needs it no more.
      </p>
    </section>
  </div>
</template>

<style scoped>
.page {
  max-width: 56rem;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s4);
}
li {
  display: grid;
  grid-template-columns: 7rem 1fr;
  gap: var(--s5);
  align-items: center;
}
svg {
  width: 100%;
}
.phone {
  fill: var(--ink);
}
.screen {
  fill: var(--chalk);
}
.hot {
  fill: var(--hot);
}
.paper {
  fill: var(--plaster);
  stroke: var(--ink);
  stroke-width: 2;
}
.ring {
  fill: none;
  stroke: var(--wet);
  stroke-width: 5;
}
.button {
  fill: var(--wet);
}
.knob {
  fill: var(--plaster);
}
.mark {
  fill: none;
  stroke: var(--plaster);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.mark.ink {
  stroke: var(--ink);
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: 5rem 1fr;
    gap: var(--s3);
  }
}
</style>
