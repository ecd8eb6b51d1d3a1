import { consistencyBySifting, type RatioMethod, type SiftStage } from '#core/mix'
import type { VolumeMethod } from '#core/mould'
import { plasterClass, type LabelReading, type PlasterClassId } from '#core/plaster'
import type { PlanMember } from '#core/pour'
import { labelOfClass } from '#core/stock'
import { firstMouldDraft, mouldInputOf, wayBrings, type MouldDraft } from '~/parts/mould/mouldDraft'
import { SHOWN_WAYS } from '~/parts/mould/ways'
import { consistencyOfScoops } from '~/parts/mix/scoop'
import type { MouldInput } from '~~/shared/moulds'
import type { BagCard, BagInput, PlasterCard } from '~~/shared/stock'
import { plasterChoice, followMoulds } from '../draft/choices'
import { emptyDraft, ownScoop, type PlanDraft, type Stock } from '../draft/planDraft'
import { planOf } from '../draft/toPlan'

/** What one fills, as a caster says it who has no card for it yet. */
export const QUICK_FILLS = ['shelf', 'water', 'box', 'round', 'ground', 'bucket'] as const
export type QuickFill = (typeof QUICK_FILLS)[number]
export type DescribedFill = Exclude<QuickFill, 'shelf'>

/** The three answers, as far as they go; what another choice was told stays with it. */
export interface QuickAnswers {
  fill: QuickFill | ''
  shelfId: string
  methods: Record<DescribedFill, VolumeMethod>
  /** Under which the mould is kept; empty: it is not. */
  mouldName: string
  /** `class:<id>` or a plaster card's id; empty: not said yet. */
  plasterKey: string
  bagId: string
  /** What the bag says or one goes by, as typed, and what it was read as. */
  printed: string
  reading: LabelReading | null
  /** Under which a plaster of a class is kept; empty: it is not. */
  plasterName: string
  /** What a bag of it holds, g; undefined: no bag is kept. */
  bagG: number | undefined
  measure: RatioMethod | ''
  /** Null: the one that is known of the bag, or the workshop's own. */
  scoopMl: number | null
  stage: SiftStage | ''
  /** Of what is kept from the answers: made once, so that a second try is no second card. */
  ids: { mould: string; plaster: string; bag: string }
}

export function firstAnswers(stock: Stock, newId: () => string): QuickAnswers {
  return {
    fill: '',
    shelfId: stock.moulds.find((m) => !m.isSpill)?.id ?? '',
    methods: {
      water: { ...SHOWN_WAYS.water_fill.first, reading: 'measured' },
      box: SHOWN_WAYS.shape.first,
      round: { by: 'shape', shape: { kind: 'cylinder', diameterMm: 150, depthMm: 40 } },
      ground: SHOWN_WAYS.ground.first,
      bucket: { ...SHOWN_WAYS.known.first, plusMinusPct: 0 },
    },
    mouldName: '',
    plasterKey: '',
    bagId: '',
    printed: '',
    reading: null,
    plasterName: '',
    bagG: undefined,
    measure: '',
    scoopMl: null,
    stage: '',
    ids: { mould: newId(), plaster: newId(), bag: newId() },
  }
}

/** What it is kept as: a print is cast once, and a bucket is no mould. */
export const keepsMould = (fill: QuickAnswers['fill']) => ['water', 'box', 'round'].includes(fill)

export const classOf = ({ plasterKey }: Pick<QuickAnswers, 'plasterKey'>): PlasterClassId | undefined =>
  plasterKey.startsWith('class:') ? (plasterKey.slice(6) as PlasterClassId) : undefined

function describedOf(answers: QuickAnswers, fill: DescribedFill): MouldDraft {
  const method = answers.methods[fill]
  const draft = firstMouldDraft()
  draft.volume = { ...draft.volume, parts: [{ role: 'add', count: 1, method }] }
  return {
    ...draft,
    ...wayBrings(draft, method),
    name: keepsMould(fill) ? answers.mouldName : '',
  }
}

/** What goes on the shelf from the answers. */
export interface QuickCards {
  mould?: MouldInput
  plaster?: PlasterCard
  bag?: BagCard
}

export const bagInputOfQuick = ({ plasterName, bagG, ids }: QuickAnswers): BagInput => ({
  plasterId: ids.plaster,
  name: plasterName.trim(),
  boughtG: bagG!,
  price: null,
  openedOn: null,
  keeping: 'sealed',
  scoop: null,
  counted: null,
  usedUp: false,
  note: '',
})

export function cardsOf(answers: QuickAnswers): QuickCards {
  const { fill, mouldName, plasterName, printed, reading, bagG, ids } = answers
  const classId = classOf(answers)
  const name = plasterName.trim()
  const cards: QuickCards = {}
  if (fill !== '' && fill !== 'shelf' && keepsMould(fill) && mouldName.trim() !== '')
    cards.mould = mouldInputOf(describedOf(answers, fill))
  if (classId && name !== '') {
    const consistency = reading?.by === 'weight' ? reading.consistency : null
    cards.plaster = {
      id: ids.plaster,
      revision: 0,
      name,
      label: { ...labelOfClass(classId), consistency },
      printedRatio: printed.trim(),
      additions: [],
      note: '',
    }
    if (bagG !== undefined)
      cards.bag = {
        ...bagInputOfQuick(answers),
        id: ids.bag,
        revision: 0,
        leftG: bagG,
        pours: 0,
        spoonTests: [],
      }
  }
  return cards
}

/** The answers once their mould is on the shelf: it is chosen there from now on, and what is described next is another. */
export const mouldKept = (answers: QuickAnswers, nextId: string): QuickAnswers => ({
  ...answers,
  fill: 'shelf',
  shelfId: answers.ids.mould,
  mouldName: '',
  ids: { ...answers.ids, mould: nextId },
})

/** The same of their plaster, with its bag or without. */
export const plasterKept = (
  answers: QuickAnswers,
  { bag }: Pick<QuickCards, 'bag'>,
  next: { plaster: string; bag: string },
): QuickAnswers => ({
  ...answers,
  plasterKey: answers.ids.plaster,
  bagId: bag?.id ?? '',
  plasterName: '',
  bagG: undefined,
  ids: { ...answers.ids, ...next },
})

/** The shelf as it will be when what comes of the answers is on it: what is shown is what is kept. */
export function stockWith(answers: QuickAnswers, stock: Stock): Stock {
  const { plaster, bag } = cardsOf(answers)
  const more = <T>(all: readonly T[], card: T | undefined) => (card ? [...all, card] : all)
  return { ...stock, plasters: more(stock.plasters, plaster), bags: more(stock.bags, bag) }
}

/** What still has to be said, in the order of asking. */
export function wanting(answers: QuickAnswers): ('fill' | 'powder' | 'measure')[] {
  const { fill, shelfId, plasterKey, printed, reading, measure, stage } = answers
  const wants: ReturnType<typeof wanting> = []
  if (fill === '' || (fill === 'shelf' && shelfId === '')) wants.push('fill')
  if (plasterKey === '' || (printed.trim() !== '' && !reading)) wants.push('powder')
  if (measure === '' || (measure === 'by_eye' && stage === '')) wants.push('measure')
  return wants
}

/** The worksheet that three answers come to; undefined until all of them are given. */
export function quickDraft(answers: QuickAnswers, stock: Stock, nowMs: number): PlanDraft | undefined {
  const { fill, measure, stage, reading, ids } = answers
  if (wanting(answers).length > 0 || fill === '' || measure === '') return undefined
  const shelf = stockWith(answers, stock)
  const isKept = cardsOf(answers).plaster !== undefined
  const plasterKey = isKept ? ids.plaster : answers.plasterKey
  const draft = { ...emptyDraft(shelf.settings), ...plasterChoice(plasterKey, shelf) }
  if (!isKept && answers.bagId) draft.bagId = answers.bagId
  if (fill === 'shelf') Object.assign(draft, { source: 'shelf', shelfId: answers.shelfId })
  else Object.assign(draft, { source: 'describe', described: describedOf(answers, fill) })
  // So much was asked for: not more, whatever it is for.
  if (fill === 'bucket') draft.sparePct = 0

  const classId = classOf(answers) ?? shelf.plasters.find((p) => p.id === answers.plasterKey)?.label.classId
  if (classId === undefined) return undefined
  draft.ratioMethod = measure
  if (measure === 'by_volume' && answers.scoopMl !== null && answers.scoopMl !== draft.scoop.measureMl)
    draft.scoop = { ...ownScoop(stock.settings), measureMl: answers.scoopMl }
  if (reading)
    draft.consistency =
      reading.by === 'weight'
        ? reading.consistency
        : consistencyOfScoops(reading.powderParts, classId, draft.scoop)
  if (measure === 'by_eye' && stage !== '') {
    draft.siftStage = stage
    draft.consistency = Math.round(consistencyBySifting(classId, stage).mid)
  }
  const members: readonly PlanMember[] = planOf(draft, shelf, nowMs)?.mould.members ?? []
  return { ...draft, ...followMoulds(draft, members) }
}

/** A filled mix goes in at once: there is no bed of powder to look at. */
export const goesByEye = (classId: PlasterClassId | undefined) =>
  classId === undefined || plasterClass(classId).fillerRatio === 0
