import { computed, watch, type Ref } from 'vue'
import { PLASTER_CLASS_IDS, type PlasterClassId } from '#core/plaster'
import { useUnits } from '~/parts/show/useUnits'
import { PLASTER_CLASS_WORDS, PLASTER_USE_WORDS } from '~/parts/words/plaster'
import { useWorkshop } from '~/stores/workshop'
import { classOf, goesByEye, keepsMould, type QuickAnswers } from './answers'
import { CLASS_SIGNS, FIRST_MOULD } from './words'

/** Bags before classes: what is here is known better. */
const BAGS_SHOWN = 6

const classes = PLASTER_CLASS_IDS.map((id) => ({
  value: `class:${id} `,
  name: PLASTER_CLASS_WORDS[id],
  how: PLASTER_USE_WORDS[id],
  icon: CLASS_SIGNS[id],
}))
/** The powders to choose from, and the one that was chosen; on an empty shelf names for what the answers become. */
export function usePowders(answers: Ref<QuickAnswers>) {
  const workshop = useWorkshop()
  const units = useUnits()
  const powders = computed(() => {
    const bags = workshop.bags
      .filter((b) => !b.usedUp)
      .map((b) => ({
        value: `${b.plasterId} ${b.id}`,
        name: b.name,
        how: `${workshop.plasters.find((p) => p.id === b.plasterId)?.name ?? ''}, ${units.roughMass(b.leftG)} left`,
        icon: signOf(b.plasterId),
      }))
    const without = workshop.plasters
      .filter((p) => !workshop.bags.some((b) => b.plasterId === p.id && !b.usedUp))
      .map((p) => ({
        value: `${p.id} `,
        name: p.name,
        how: 'no bag open',
        icon: CLASS_SIGNS[p.label.classId],
      }))
    return [...bags, ...without]
  })
  const signOf = (plasterId: string) => {
    const card = workshop.plasters.find((p) => p.id === plasterId)
    return card && CLASS_SIGNS[card.label.classId]
  }
  const shownPowders = computed(() => powders.value.slice(0, BAGS_SHOWN))
  const morePowders = computed(() =>
    powders.value.slice(BAGS_SHOWN).map(({ value, name, how }) => ({ value, label: `${name} · ${how}` })),
  )
  const powder = computed({
    get: () => (answers.value.plasterKey === '' ? '' : `${answers.value.plasterKey} ${answers.value.bagId}`),
    set(value: string) {
      const [plasterKey, bagId] = value.split(' ') as [string, string]
      Object.assign(answers.value, { plasterKey, bagId })
      const { measure } = answers.value
      if (measure === 'by_eye' && !goesByEye(classId.value)) answers.value.measure = ''
    },
  })
  const classId = computed<PlasterClassId | undefined>(
    () =>
      classOf(answers.value) ??
      workshop.plasters.find((p) => p.id === answers.value.plasterKey)?.label.classId,
  )
  // On an empty shelf the first answers become the first cards, unless their names are struck out.
  const first = { mould: workshop.moulds.length === 0, plaster: workshop.plasters.length === 0 }
  watch(
    () => answers.value.fill,
    (fill) => {
      if (first.mould && keepsMould(fill) && answers.value.mouldName === '')
        answers.value.mouldName = FIRST_MOULD
    },
  )
  watch(
    () => classOf(answers.value),
    (chosen, before) => {
      const { plasterName } = answers.value
      const isOurs = plasterName === '' || (before && plasterName === PLASTER_CLASS_WORDS[before])
      if (first.plaster && chosen && isOurs) answers.value.plasterName = PLASTER_CLASS_WORDS[chosen]
    },
  )
  return {
    shownPowders,
    morePowders,
    classes,
    powder,
    classId,
    nothingHere: computed(() => powders.value.length === 0),
  }
}
