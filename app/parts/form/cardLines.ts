import { describeCavity } from '#core/mould'
import { isoDayText } from '~/parts/show/time'
import type { Settings } from '~~/shared/contracts'
import type { MouldInput, MouldSetInput } from '~~/shared/moulds'
import type { BagInput, PlasterInput, RecipeInput } from '~~/shared/stock'
import { ADDITION_WORDS, KEEPING_WORDS } from '~/parts/words/mix'
import { MATERIAL_WORDS, PURPOSE_WORDS } from '~/parts/words/mould'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

/** A card in words, line by line, so that two of them can be laid side by side. */
export type CardLines = readonly (readonly [what: string, value: string])[]

interface Show {
  mass: (massG: number) => string
  volume: (volumeMl: number) => string
  length: (lengthMm: number) => string
  temp: (tempC: number) => string
}

const orNone = <T>(value: T | null, words: (value: T) => string) =>
  value === null ? 'not said' : words(value)
const yesNo = (yes: boolean) => (yes ? 'yes' : 'no')

export function plasterLines({ name, label, printedRatio, additions, note }: PlasterInput): CardLines {
  return [
    ['Name', name],
    ['Class', PLASTER_CLASS_WORDS[label.classId]],
    ['Ratio, as printed', printedRatio || 'not said'],
    ['Water to 100', orNone(label.consistency, String)],
    ['Sets in', orNone(label.setMin, (min) => `${min} min`)],
    ['Growth', orNone(label.expansionPct, (pct) => `${pct} %`)],
    ['Strength, dry', orNone(label.dryStrengthMPa, (mpa) => `${mpa} MPa`)],
    [
      'Goes in with it',
      additions.map((a) => `${ADDITION_WORDS[a.id].name} ${a.pct} %`).join(', ') || 'nothing',
    ],
    ['Note', note],
  ]
}

export function bagLines(bag: BagInput, show: Show, currency: string): CardLines {
  return [
    ['Written on it', bag.name],
    ['It held', show.mass(bag.boughtG)],
    ['It cost', orNone(bag.price, (price) => `${price} ${currency}`)],
    ['Opened on', orNone(bag.openedOn, isoDayText)],
    ['Kept', KEEPING_WORDS[bag.keeping]],
    ['Weighed last', orNone(bag.counted, (c) => show.mass(c.leftG))],
    ['Used up', yesNo(bag.usedUp)],
    ['Note', bag.note],
  ]
}

export function mouldLines(mould: MouldInput, show: Show, plasterName: (id: string) => string): CardLines {
  const described = describeCavity(mould.volume)
  return [
    ['Name', mould.name],
    ['For', PURPOSE_WORDS[mould.purpose]],
    ['Made of', MATERIAL_WORDS[mould.facts.material]],
    ['Holds', described.ok ? show.volume(described.finding.volumeMl) : 'cannot be cast'],
    ['How that was found', JSON.stringify(mould.volume.parts.map((p) => p.method))],
    ['Build, opening, undercut', Object.values(mould.facts).map(String).join(', ')],
    ['Thickness', show.length(mould.thicknessMm)],
    ['Usual plaster', orNone(mould.usualPlasterId, plasterName)],
    ['For leftovers', yesNo(mould.isSpill)],
    ['Casts before', String(mould.castsBefore)],
    ['Casts it should give', orNone(mould.lifeCasts, String)],
    ['Note', mould.note],
  ]
}

export function setLines({ name, members }: MouldSetInput, mouldName: (id: string) => string): CardLines {
  return [
    ['Name', name],
    ...members
      .map(({ mouldId, count }) => [mouldName(mouldId), `${count} ×`] as const)
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  ]
}

export function recipeLines({ name, plan }: RecipeInput, show: Show): CardLines {
  return [
    ['Name', name],
    ['Plaster', plan.plaster.name],
    ['Water to 100', String(Math.round(plan.consistency))],
    ['Water', show.temp(plan.waterTempC)],
    ['Soak', `${Math.round(plan.soakS / 60)} min`],
    ['Stir', `${Math.round(plan.stirS / 60)} min`],
    ['Spare', `${plan.sparePct} %`],
    ['Mould', plan.mould.name],
  ]
}

export function settingsLines(s: Settings, show: Show): CardLines {
  return [
    ['Name', s.workshopName],
    ['Units', s.system],
    ['Decimals', s.decimalSign ?? 'asked about'],
    ['Cups and pints', s.kitchen ?? 'asked about'],
    ['The scale’s smallest step', `${s.scaleDivisionG} g`],
    ['Most it takes', orNone(s.scaleCapacityG, show.mass)],
    ['Prices are in', s.currency],
    ['Room', show.temp(s.roomTempC)],
    ['Cold tap', show.temp(s.tapTempC)],
    ['Hot tap', show.temp(s.hotTapTempC)],
    ['Humidity', `${s.roomRhPct} %`],
    ['Air speed', `${s.airSpeedMS} m/s`],
  ]
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
