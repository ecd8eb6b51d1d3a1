import { computed, ref } from 'vue'

const LEAST_MIN = 10

/** Which part of a chart over minutes is shown: zoomed around the present, moved along, by buttons and keys. */
export function useChartWindow(endMin: () => number, nowMin: () => number | undefined) {
  /** Undefined is all of it. */
  const view = ref<{ from: number; to: number }>()
  const whole = computed(() => ({ from: 0, to: endMin() }))
  const shown = computed(() => view.value ?? whole.value)
  function zoom(by: number) {
    const { from, to } = shown.value
    const now = nowMin() ?? 0
    const middle = now > from && now < to ? now : (from + to) / 2
    const half = Math.max(LEAST_MIN / 2, ((to - from) / 2) * by)
    setView(middle - half, middle + half)
  }
  function move(by: number) {
    const { from, to } = shown.value
    setView(from + by * (to - from), to + by * (to - from))
  }
  function setView(from: number, to: number) {
    const span = to - from
    const all = whole.value
    if (span >= all.to - all.from) {
      view.value = undefined
      return
    }
    const start = Math.min(Math.max(from, all.from), all.to - span)
    view.value = { from: start, to: start + span }
  }
  function key(event: KeyboardEvent) {
    const act = {
      '+': () => zoom(0.5),
      '-': () => zoom(2),
      ArrowLeft: () => move(-0.25),
      ArrowRight: () => move(0.25),
    }[event.key]
    if (!act) return
    // Any other key of the run goes on: these belong to the chart while it has the focus.
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  return { shown, isWhole: computed(() => view.value === undefined), zoom, move, key }
}
