import type { MouldSet, MouldSetInput } from '../../../shared/moulds'
import { inTransaction, type Db } from '../../db/client'
import { DomainError } from '../domainError'
import { putRevisioned } from '../revisioned'

async function setsOf(db: Db, ids?: readonly string[]): Promise<MouldSet[]> {
  let wanted = db.selectFrom('mould_set').selectAll().orderBy('name').orderBy('id')
  if (ids) wanted = wanted.where('id', 'in', ids)
  const sets = await wanted.execute()
  if (sets.length === 0) return []
  const members = await db
    .selectFrom('mould_set_member')
    .innerJoin('mould', 'mould.id', 'mould_set_member.mould_id')
    .select(['set_id', 'mould_id', 'count'])
    .where(
      'set_id',
      'in',
      sets.map((s) => s.id),
    )
    .orderBy('mould.name')
    .orderBy('mould.id')
    .execute()
  return sets.map(({ id, name, revision }) => ({
    id,
    name,
    revision,
    members: members.filter((m) => m.set_id === id).map((m) => ({ mouldId: m.mould_id, count: m.count })),
  }))
}

export const listMouldSets = (db: Db): Promise<MouldSet[]> => setsOf(db)

/** Those of these that are there. */
export const mouldSetsById = (db: Db, ids: readonly string[]): Promise<MouldSet[]> => setsOf(db, ids)

const byMould = (a: { mouldId: string }, b: { mouldId: string }) => (a.mouldId < b.mouldId ? -1 : 1)

/** In an order of their own: how the members are listed is no part of what a set is. */
const comparable = ({ name, members }: MouldSetInput): MouldSetInput => ({
  name,
  members: [...members].sort(byMould),
})

/** A new set (`seenRevision` null), or a change of the one the caller saw. All of its moulds must be on the shelf. */
export async function putMouldSet(
  db: Db,
  id: string,
  seenRevision: number | null,
  set: MouldSetInput,
): Promise<MouldSet> {
  await inTransaction(db, async (trx) => {
    const wanted = comparable(set)
    const ids = wanted.members.map((m) => m.mouldId)
    const known = await trx
      .selectFrom('mould')
      .select('id')
      .where('id', 'in', ids)
      .orderBy('id')
      .forShare()
      .execute()
    if (known.length < ids.length)
      throw new DomainError('invalid_input', [
        { path: 'set.members', message: 'names a mould that is not on the shelf' },
      ])
    const written = await putRevisioned(
      trx,
      'mould_set',
      id,
      seenRevision,
      { name: set.name },
      wanted,
      async (now) => {
        const [card] = await setsOf(now, [id])
        return { input: comparable(card!), card }
      },
    )
    if (!written) return
    await trx.deleteFrom('mould_set_member').where('set_id', '=', id).execute()
    await trx
      .insertInto('mould_set_member')
      .values(wanted.members.map((m) => ({ set_id: id, mould_id: m.mouldId, count: m.count })))
      .execute()
  })
  return (await setsOf(db, [id]))[0]!
}

export async function deleteMouldSet(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('mould_set').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
