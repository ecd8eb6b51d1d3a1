import type { CauseId, FaultKind } from '#core/finish'
import type { TagKind } from '#core/pour'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { FAULT_WORDS } from '~/parts/words/faults'

type Named = readonly { id: string; name: string }[]

/** What the log is narrowed to, in words. */
export function tagWords(
  tag: string,
  shelf: { moulds: Named; bags: Named; places: Named; plasters: Named; recipes: Named },
): string {
  const [kind, id] = tag.split(':') as [TagKind, string]
  const named = (list: Named, gone: string) => list.find((c) => c.id === id)?.name ?? gone
  switch (kind) {
    case 'mould':
      return named(shelf.moulds, 'A mould no longer here')
    case 'bag':
      return named(shelf.bags, 'A bag no longer here')
    case 'place':
      return named(shelf.places, 'A place no longer here')
    case 'plaster':
      return named(shelf.plasters, 'A plaster no longer here')
    case 'recipe':
      return named(shelf.recipes, 'A recipe no longer kept')
    case 'fault':
      return FAULT_WORDS[id as FaultKind] ?? id
    case 'cause':
      return CAUSE_WORDS[id as CauseId]?.name ?? id
  }
}

/** A chance as one says it. */
export function chanceWords(chance: number): string {
  if (chance >= 0.85) return 'almost surely'
  if (chance >= 0.5) return 'likely'
  if (chance >= 0.2) return 'may be'
  return 'not ruled out'
}
