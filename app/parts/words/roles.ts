import { RIGHTS_OF, ROLES, type Right, type Role } from '~~/shared/roles'

export const ROLE_WORDS: Record<Role, string> = {
  keeper: 'Keeper',
  caster: 'Caster',
  looker: 'Looker',
}

/** What each right lets one do, in a caster's words. */
export const RIGHT_WORDS: Record<Right, string> = {
  look: 'See the bench, the shelf and the log',
  work: 'Plan, mix, pour and record; add to the shelf',
  keep: 'Settings, people, files of the whole workshop, throwing cards away',
  own: 'The workshops of this server',
}

export const ROLE_OPTIONS = ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }))

export const mayWords = (role: Role): string =>
  RIGHTS_OF[role].map((right) => RIGHT_WORDS[right]).join('. ') + '.'
