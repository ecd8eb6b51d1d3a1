import { onlyRead } from '~/stores/api'
import { BENCH, REHEARSAL_PLACE, benchOf, hurriedClock } from '~/stores/bench'
import { workshopClock } from '~/stores/clock'
import { placeOf } from '~/stores/kept'

const FASTEST = 600

/** Hands in the bench: the workshop's own, or, opened with `?rehearse=60`, one that goes its own way and keeps nothing. */
export default defineNuxtPlugin((nuxtApp) => {
  const asked =
    new URL(location.href).searchParams.get('rehearse') ?? placeOf('sessionStorage').getItem(REHEARSAL_PLACE)
  const speed = Math.min(FASTEST, Number(asked))
  const rehearses = speed >= 1
  if (rehearses) {
    placeOf('sessionStorage').setItem(REHEARSAL_PLACE, String(speed))
    onlyRead()
  }
  nuxtApp.vueApp.provide(
    BENCH,
    rehearses
      ? benchOf(hurriedClock(workshopClock, speed), { isReal: false, speed })
      : benchOf(workshopClock, { isReal: true, speed: 1 }),
  )
})
