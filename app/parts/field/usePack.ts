import { computed } from 'vue'
import { packFor, type FieldMix, type Pack, type PackInput, type PrintForm } from '#core/field'
import { plasterProperties, blend, type PlasterClassId } from '#core/plaster'
import { propertiesOfCard } from '#core/stock'
import { useKept } from '~/stores/kept'
import { useWorkshop } from '~/stores/workshop'

export interface PackSaid {
  prints: { lengthMm: number; widthMm: number; depthMm: number; form: PrintForm; count: number }[]
  /** A card of the shelf; none: plaster of Paris as its class has it. */
  plasterId: string
  /** Parts of water to 100; 0: as the card says. */
  consistency: number
  how: FieldMix
  isSoft: boolean
  capMl: number | null
  bottle: string
  airTempC: number
  ticked: string[]
}
export const FIRST_SIZE = { lengthMm: 100, widthMm: 80, depthMm: 15, form: 'between', count: 4 } as const
const FIRST: PackSaid = {
  prints: [FIRST_SIZE],
  plasterId: '',
  consistency: 0,
  how: 'bags',
  isSoft: true,
  capMl: null,
  bottle: '',
  airTempC: 12,
  ticked: [],
}
const CLASS_WITHOUT_CARD: PlasterClassId = 'pop'
/** More than a print takes: some stays in the bag (common practice, no source). */
const SPARE_PCT = 10
const AIR_KNEADED = 0.02

/** What was packed, as a plan may go by it. */
export const usePackSaid = () => useKept<PackSaid>('nine-ripples.pack', FIRST, { mergeDefaults: true })

/** What is packed for a day out: said on one page, printed by another, kept on this device. */
export function usePack() {
  const workshop = useWorkshop()
  const said = usePackSaid()
  const card = computed(() => workshop.plasters.find((p) => p.id === said.value.plasterId))
  const properties = computed(() =>
    card.value
      ? blend(propertiesOfCard(card.value.label), card.value.additions)
      : plasterProperties(CLASS_WITHOUT_CARD),
  )
  const consistency = computed(() => said.value.consistency || properties.value.useConsistency)
  const input = computed<PackInput>(() => ({
    prints: said.value.prints,
    mix: {
      plaster: properties.value,
      consistency: consistency.value,
      waterTempC: said.value.airTempC,
      airFraction: AIR_KNEADED,
    },
    sparePct: SPARE_PCT,
    scaleDivisionG: workshop.settings.scaleDivisionG,
    isSoft: said.value.isSoft,
    how: said.value.how,
    capMl: said.value.capMl,
    airTempC: said.value.airTempC,
  }))
  const pack = computed<Pack | undefined>(() => packFor(input.value))
  return { said, card, consistency, pack }
}
