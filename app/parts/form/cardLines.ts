import { parseISO } from 'date-fns'
import { describeCavity } from '#core/mould'
import { plain } from '~/parts/show/figures'
import { counted } from '~/parts/show/counted'
import { dayInFull, momentText } from '~/parts/show/time'
import type { useUnits } from '~/parts/show/useUnits'
import type { Settings } from '~~/shared/contracts'
import type { MouldInput, MouldSetInput } from '~~/shared/moulds'
import type { BagInput, PlasterInput, RecipeInput } from '~~/shared/stock'
import { ADDITION_WORDS, KEEPING_WORDS, SET_TEST_WORDS } from '~/parts/words/mix'
import { shownWay } from '~/parts/mould/ways'
import { PURPOSE_WORDS, factLines } from '~/parts/words/mould'
import { PACKING_WORDS, PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

/** A card in words, line by line, so that two of them can be laid side by side. */
export type CardLines = readonly (readonly [what: string, value: string])[]

/** How each field of a card reads: one line, or several. A field without one does not compile. */
type Reads<Card> = {
  [Field in keyof Card]:
    | readonly [what: string, words: (value: Card[Field]) => string]
    | ((value: Card[Field]) => CardLines)
}

function linesOf<Card extends object>(card: Card, reads: Reads<Card>): CardLines {
  return (Object.keys(reads) as (keyof Card)[]).flatMap((field) => {
    const read = reads[field]
    return typeof read === 'function' ? read(card[field]) : [[read[0], read[1](card[field])] as const]
  })
}

type Show = Pick<ReturnType<typeof useUnits>, 'mass' | 'volume' | 'length' | 'temp'>

const orNone = <T>(value: T | null, words: (value: T) => string) =>
  value === null ? 'not said' : words(value)
const yesNo = (yes: boolean) => (yes ? 'yes' : 'no')
const asTyped = (text: string) => text

export function plasterLines(plaster: PlasterInput): CardLines {
  const label: Reads<PlasterInput['label']> = {
    classId: ['Class', (of) => PLASTER_CLASS_WORDS[of]],
    consistency: ['Water to 100', (c) => orNone(c, (of) => plain(of))],
    range: ['Water to 100, range', (r) => orNone(r, ({ low, high }) => `${plain(low)}–${plain(high)}`)],
    setMin: ['Sets in', (min) => orNone(min, (m) => `${plain(m)} min`)],
    setTest: ['Found by', (test) => SET_TEST_WORDS[test]],
    expansionPct: ['Growth', (pct) => orNone(pct, (p) => `${plain(p)} %`)],
    dryStrengthMPa: ['Strength, dry', (mpa) => orNone(mpa, (m) => `${plain(m)} MPa`)],
  }
  return linesOf(plaster, {
    name: ['Name', asTyped],
    label: (said) => linesOf(said, label),
    printedRatio: ['Ratio, as printed', (text) => text || 'not said'],
    additions: [
      'Goes in with it',
      (all) => all.map((a) => `${ADDITION_WORDS[a.id].name} ${plain(a.pct)} %`).join(', ') || 'nothing',
    ],
    note: ['Note', asTyped],
  })
}

export function bagLines(
  bag: BagInput,
  { mass, volume }: Show,
  currency: string,
  plasterName: (id: string) => string,
): CardLines {
  return linesOf(bag, {
    plasterId: ['Of', plasterName],
    name: ['Written on it', asTyped],
    boughtG: ['It held', mass],
    price: ['It cost', (price) => orNone(price, (p) => `${plain(p)} ${currency}`)],
    openedOn: ['Opened on', (day) => orNone(day, (d) => dayInFull(parseISO(d).getTime()))],
    keeping: ['Kept', (of) => KEEPING_WORDS[of]],
    scoop: [
      'A scoop of it',
      (s) =>
        orNone(
          s,
          ({ measureMl, packing, weighedKgM3 }) =>
            `${volume(measureMl)}, ${PACKING_WORDS[packing]}: ${mass((measureMl * weighedKgM3) / 1000)}`,
        ),
    ],
    counted: ['Weighed last', (c) => orNone(c, ({ leftG }) => mass(leftG))],
    usedUp: ['Used up', yesNo],
    note: ['Note', asTyped],
  })
}

export function mouldLines(
  mould: MouldInput,
  { volume, length }: Show,
  plasterName: (id: string) => string,
): CardLines {
  return linesOf(mould, {
    name: ['Name', asTyped],
    purpose: ['For', (of) => PURPOSE_WORDS[of]],
    facts: factLines,
    volume: (described) => {
      const { parts } = described
      const found = describeCavity(described)
      return [
        ['Holds', found.ok ? volume(found.finding.volumeMl) : 'cannot be cast'],
        ['How that was found', parts.map((p) => shownWay(p.method).name).join(', ')],
      ]
    },
    thicknessMm: ['Thickness', length],
    usualPlasterId: ['Usual plaster', (of) => orNone(of, plasterName)],
    isSpill: ['For leftovers', yesNo],
    castsBefore: ['Casts before', String],
    lifeCasts: ['Casts it should give', (casts) => orNone(casts, String)],
    note: ['Note', asTyped],
    find: findLines,
  })
}

const findLines = (find: MouldInput['find']): CardLines =>
  find
    ? [
        ['Found', `${momentText(find.foundAtMs, 0)}${find.place && `, ${find.place}`}`],
        ['Depths by stick', find.depthsMm.map((d) => `${plain(d)} mm`).join(', ') || 'not said'],
        ['Measured on', counted(find.shots.filter((s) => s.scale).length, 'photograph')],
      ]
    : []

export function setLines(set: MouldSetInput, mouldName: (id: string) => string): CardLines {
  return linesOf(set, {
    name: ['Name', asTyped],
    members: (all) =>
      all
        .map(({ mouldId, count }) => [mouldName(mouldId), `${count} ×`] as const)
        .sort(([a], [b]) => (a < b ? -1 : 1)),
  })
}

export function recipeLines(recipe: RecipeInput, { temp }: Show): CardLines {
  return linesOf(recipe, {
    name: ['Name', asTyped],
    // Of a plan, what a recipe is used for.
    plan: (plan) => [
      ['Plaster', plan.plaster.name],
      ['Water to 100', String(Math.round(plan.consistency))],
      ['Water', temp(plan.waterTempC)],
      ['Soak', `${Math.round(plan.soakS / 60)} min`],
      ['Stir', `${Math.round(plan.stirS / 60)} min`],
      ['Spare', `${plain(plan.sparePct)} %`],
      ['Mould', plan.mould.name],
    ],
  })
}

export function settingsLines(settings: Settings, { mass, temp, volume }: Show): CardLines {
  return linesOf(settings, {
    workshopName: ['Name', asTyped],
    system: ['Units', asTyped],
    decimalSign: ['Decimals', (sign) => sign ?? 'asked about'],
    kitchen: ['Cups and pints', (size) => size ?? 'asked about'],
    scoopMl: ['The cup it is measured with', (ml) => orNone(ml, volume)],
    scaleDivisionG: ['The scale’s smallest step', (g) => `${plain(g)} g`],
    scaleCapacityG: ['Most it takes', (g) => orNone(g, mass)],
    currency: ['Prices are in', asTyped],
    roomTempC: ['Room', temp],
    tapTempC: ['Cold tap', temp],
    hotTapTempC: ['Hot tap', temp],
    roomRhPct: ['Humidity', (pct) => `${plain(pct)} %`],
    airSpeedMS: ['Air speed', (speed) => `${plain(speed)} m/s`],
  })
}

/** Where two cards differ: what, and what each says; a line that one of them lacks is a dash there. */
export function differences(
  mine: CardLines,
  theirs: CardLines,
): [what: string, mine: string, theirs: string][] {
  const [a, b] = [new Map(mine), new Map(theirs)]
  return [...new Set([...a.keys(), ...b.keys()])].flatMap((what) => {
    const [here, there] = [a.get(what) ?? '–', b.get(what) ?? '–']
    return here === there ? [] : [[what, here, there]]
  })
}
