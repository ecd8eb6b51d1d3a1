import type { Transaction } from 'kysely'
import type { MouldSet, MouldSetInput } from '../../shared/moulds'
import type { Db } from '../db/client'
import type { Database } from '../db/schema'
import { DomainError } from './domainError'

export async function listMouldSets(db: Db): Promise<MouldSet[]> {
  const [sets, members] = await Promise.all([
    db.selectFrom('mould_set').selectAll().orderBy('name').orderBy('id').execute(),
    db
      .selectFrom('mould_set_member')
      .innerJoin('mould', 'mould.id', 'mould_set_member.mould_id')
      .select(['set_id', 'mould_id', 'count'])
      .orderBy('mould.name')
      .execute(),
  ])
  return sets.map(({ id, name }) => ({
    id,
    name,
    members: members.filter((m) => m.set_id === id).map((m) => ({ mouldId: m.mould_id, count: m.count })),
  }))
}

/** Puts a set in place of the one with this id, or makes it. All of its moulds must be on the shelf. */
export async function saveMouldSet(db: Db, id: string, set: MouldSetInput): Promise<MouldSet> {
  await db.transaction().execute((trx) => putMouldSet(trx, id, set))
  return (await listMouldSets(db)).find((s) => s.id === id)!
}

export async function putMouldSet(trx: Transaction<Database>, id: string, set: MouldSetInput): Promise<void> {
  const ids = set.members.map((m) => m.mouldId)
  const known = await trx.selectFrom('mould').select('id').where('id', 'in', ids).forShare().execute()
  if (known.length < ids.length)
    throw new DomainError('invalid_input', [
      { path: 'set.members', message: 'names a mould that is not on the shelf' },
    ])
  await trx
    .insertInto('mould_set')
    .values({ id, name: set.name })
    .onConflict((c) => c.column('id').doUpdateSet({ name: set.name }))
    .execute()
  await trx.deleteFrom('mould_set_member').where('set_id', '=', id).execute()
  await trx
    .insertInto('mould_set_member')
    .values(set.members.map((m) => ({ set_id: id, mould_id: m.mouldId, count: m.count })))
    .execute()
}

export async function deleteMouldSet(db: Db, id: string): Promise<void> {
  const gone = await db.deleteFrom('mould_set').where('id', '=', id).returning('id').executeTakeFirst()
  if (!gone) throw new DomainError('not_found')
}
