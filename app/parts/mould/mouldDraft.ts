import {
  describeCavity,
  describedThicknessMm,
  usualFacts,
  type CavityDescription,
  type MouldFacts,
  type Purpose,
  type VolumeMethod,
} from '#core/mould'
import type { MouldCard, MouldInput } from '~~/shared/moulds'
import { SHOWN_WAYS, shownWay } from './ways'

/** A mould being described: as far as it goes, with whatever cannot be cast yet left as typed. */
export interface MouldDraft {
  name: string
  purpose: Purpose
  facts: MouldFacts
  volume: CavityDescription
  thicknessMm: number
  /** The caster typed the thickness; else it follows the form. */
  thicknessTyped: boolean
  /** What the way of finding the volume brought along, and what stood there before. */
  brought?: {
    facts?: { came: MouldFacts; before: MouldFacts }
    purpose?: { came: Purpose; before: Purpose }
  }
  usualPlasterId: string
  isSpill: boolean
  castsBefore: number
  /** Of a print: goes along as it is. */
  find: MouldInput['find']
  /** 0: what the material usually gives. */
  lifeCasts: number
  note: string
}

export function firstMouldDraft(): MouldDraft {
  return {
    name: '',
    purpose: 'figure',
    facts: usualFacts('silicone'),
    volume: {
      parts: [{ role: 'add', count: 1, method: SHOWN_WAYS.shape.first }],
      cavities: 1,
      check: null,
      trust: 'parts',
    },
    thicknessMm: 30,
    thicknessTyped: false,
    usualPlasterId: '',
    isSpill: false,
    castsBefore: 0,
    find: null,
    lifeCasts: 0,
    note: '',
  }
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/** Facts as they stood before a way brought its own, but for what was chosen otherwise since: another material is all of it. */
function withoutBrought(
  now: MouldFacts,
  { came, before }: { came: MouldFacts; before: MouldFacts },
): MouldFacts {
  if (now.material !== came.material) return now
  const back = Object.entries(before).filter(([fact]) => {
    const key = fact as keyof MouldFacts
    return same(now[key], came[key])
  })
  return { ...now, ...Object.fromEntries(back) }
}

/**
 * What choosing a way of finding the volume changes. What the last way had brought along leaves again with it, fact by
 * fact, unless the caster has chosen otherwise since; then this way brings its own.
 */
export function wayBrings(draft: MouldDraft, method: VolumeMethod): Partial<MouldDraft> {
  const { brought } = draft
  const facts = brought?.facts ? withoutBrought(draft.facts, brought.facts) : draft.facts
  const purpose =
    brought?.purpose && draft.purpose === brought.purpose.came ? brought.purpose.before : draft.purpose
  const hint = shownWay(method).hint(method)
  return {
    facts: hint.facts ?? facts,
    purpose: hint.purpose ?? purpose,
    brought: {
      ...(hint.facts ? { facts: { came: hint.facts, before: facts } } : {}),
      ...(hint.purpose ? { purpose: { came: hint.purpose, before: purpose } } : {}),
    },
  }
}

/** What the piece dries like, mm: typed, or from its form, or the last figure known. */
export function thicknessOf(draft: MouldDraft): number {
  if (draft.thicknessTyped) return draft.thicknessMm
  const described = describeCavity(draft.volume)
  const formMm = described.ok ? describedThicknessMm(draft.volume, described.finding) : undefined
  return Math.min(500, Math.max(1, formMm ?? draft.thicknessMm))
}

export function mouldInputOf(draft: MouldDraft): MouldInput {
  return {
    name: draft.name.trim(),
    purpose: draft.purpose,
    facts: draft.facts,
    volume: draft.volume,
    thicknessMm: thicknessOf(draft),
    usualPlasterId: draft.usualPlasterId === '' ? null : draft.usualPlasterId,
    isSpill: draft.isSpill,
    castsBefore: Math.round(draft.castsBefore),
    find: draft.find,
    lifeCasts: draft.lifeCasts === 0 ? null : Math.round(draft.lifeCasts),
    note: draft.note.trim(),
  }
}

export function mouldDraftOf(card: MouldCard): MouldDraft {
  const { name, purpose, facts, volume, thicknessMm, isSpill, castsBefore, note, find } = card
  return {
    name,
    purpose,
    facts,
    volume,
    thicknessMm,
    thicknessTyped: true,
    usualPlasterId: card.usualPlasterId ?? '',
    isSpill,
    castsBefore,
    find,
    lifeCasts: card.lifeCasts ?? 0,
    note,
  }
}
