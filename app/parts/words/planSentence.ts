import { batchesOf, refusalsOf, type AddingWay, type PourPlan } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { figure, plain } from '~/parts/show/figures'
import { ADDITION_WORDS, SIFT_STAGE_WORDS } from './mix'
import { PURPOSE_WORDS } from './mould'
import { PLASTER_CLASS_WORDS } from './plaster'
import { DRY_TARGET_WORDS } from './pour'
import { FILLING_WORDS } from './steps'

/** What a plan is made of, in the order a caster says it. */
export const PLAN_PARTS = ['mould', 'plaster', 'mixing', 'filling', 'bowls', 'water', 'drying'] as const
export type PlanPart = (typeof PLAN_PARTS)[number]

/** A piece of the sentence: the words before it, which belong to nothing, and its own. */
export interface SaidPart {
  part: PlanPart
  before: string
  words: string
}

interface Show {
  temp: (tempC: number) => string
  volume: (volumeMl: number) => string
}

const lower = (words: string) => words.replace(/^[A-Z](?![A-Z])/, (c) => c.toLowerCase())
const minutes = (s: number) => `${plain(Math.round(s / 6) / 10)} min`

const ADDED: Record<AddingWay, string> = {
  sifted: 'sifted',
  tipped_in: 'tipped in at once',
  kneaded: 'kneaded in a bag',
}
const BY_HAND: Record<PourPlan['stirManner'], string> = {
  gentle: 'gently by hand',
  hand: 'by hand',
  whisk: 'with a whisk',
  drill: 'with a drill',
}
const WATER_OF: Record<NonNullable<PourPlan['water']>, string> = {
  soft: 'tap water',
  hard: 'hard water',
  sea: 'sea water',
}

function mouldWords({ mould, piece }: PourPlan, show: Show): string {
  const [only, ...others] = mould.members ?? []
  const isOne = only !== undefined && others.length === 0
  const known = isOne && only.unnamed ? PURPOSE_WORDS[only.purpose] : mould.name
  const named = only
    ? [only, ...others]
        .map((m) => (m.unnamed ? `a mould of ${show.volume(m.cavityMl)}` : `${m.count} × ${m.name}`))
        .join(', ')
    : mould.name
  return ['', known, isOne ? only.name : ''].includes(piece) ? named : `${piece}: ${named}`
}

function ratioWords(plan: PourPlan, show: Show): string {
  if (plan.ratioMethod === 'by_volume')
    return plan.scoop ? `by scoop of ${show.volume(plan.scoop.measureMl)}` : 'by scoop'
  if (plan.ratioMethod === 'by_eye')
    return `by eye to ${SIFT_STAGE_WORDS[plan.siftStage ?? 'lake_bed'].name.toLowerCase()}`
  return 'by weight'
}

function plasterWords(plan: PourPlan, show: Show): string {
  const { bag, additions = [], name, properties } = plan.plaster
  const what = bag?.name ?? (name === PLASTER_CLASS_WORDS[properties.classId] ? lower(name) : name)
  const inIt = additions.map((a) => `${ADDITION_WORDS[a.id].name.toLowerCase()} ${plain(a.pct)} %`)
  return [what, ...inIt, `${figure(plan.consistency)} to 100`, ratioWords(plan, show)].join(', ')
}

function mixingWords({ addingWay = 'sifted', soakS, stirS, stirManner }: PourPlan): string {
  const way = ADDED[addingWay]
  if (addingWay === 'kneaded') return `${way} for ${minutes(stirS)}`
  const soak = soakS > 0 ? [`soaked ${minutes(soakS)}`] : []
  return [way, ...soak, `stirred ${minutes(stirS)} ${BY_HAND[stirManner]}`].join(', ')
}

function waterWords(plan: PourPlan, show: Show): string {
  const kind = WATER_OF[plan.water ?? 'soft']
  const from = plan.taps ? `${kind} from two taps` : kind
  const sun = plan.sun ? `, in ${plan.sun === 'full' ? 'full' : 'hazy'} sun` : ''
  return `${from} at ${show.temp(plan.waterTempC)}${sun}`
}

function bowlsWords(plan: PourPlan): string {
  const cut = refusalsOf(plan).length === 0 ? batchesOf(plan).batches.length : 1
  const bowl = plan.addingWay === 'kneaded' ? 'bag' : 'bowl'
  const hands = (plan.hands ?? 1) > 1 ? ` by ${plan.hands} people` : ''
  return `${cut === 1 ? `one ${bowl}` : counted(cut, bowl)}${hands}`
}

/**
 * A plan as a caster would say it, part by part: what stands on its page, its card and its record. The piece's own name
 * comes first where it has one.
 */
export function planSentence(plan: PourPlan, show: Show): SaidPart[] {
  const filling = lower(FILLING_WORDS[plan.filling ?? 'poured'].label)
  return [
    { part: 'mould', before: '', words: mouldWords(plan, show).replace(/^./, (c) => c.toUpperCase()) },
    { part: 'plaster', before: ' in ', words: plasterWords(plan, show) },
    { part: 'mixing', before: ', ', words: mixingWords(plan) },
    { part: 'filling', before: ', ', words: plan.script ? `${filling}, steps of your own` : filling },
    { part: 'bowls', before: ', from ', words: bowlsWords(plan) },
    { part: 'water', before: ', with ', words: waterWords(plan, show) },
    {
      part: 'drying',
      before: ', to dry ',
      words: `${plan.dryingPlace ? `at ${plan.dryingPlace.name}` : 'where it sets'} until it can ${DRY_TARGET_WORDS[plan.dryTarget]}`,
    },
  ]
}

export const sentenceText = (said: readonly SaidPart[]): string =>
  `${said.map(({ before, words }) => before + words).join('')}.`
