/** Who may do what. One table: the server holds every route to it, the application shows it. */

export const ROLES = ['keeper', 'caster', 'looker'] as const
export type Role = (typeof ROLES)[number]

/**
 * What somebody may be allowed. `look`: see everything of the workshop. `work`: everything at the bench and on the shelf.
 * `keep`: people, settings, files of the whole workshop, and what is thrown away for good. `own`: the server's workshops,
 * for whoever sits at the machine itself.
 */
export const RIGHTS = ['look', 'work', 'keep', 'own'] as const
export type Right = (typeof RIGHTS)[number]

export const RIGHTS_OF: Record<Role, readonly Right[]> = {
  keeper: ['look', 'work', 'keep'],
  caster: ['look', 'work'],
  looker: ['look'],
}

/** Length is worth more than rules. */
export const LEAST_PASSWORD = 10
