import type { Db } from './client'
import type { Database } from './schema'

export async function countRows(
  db: Db,
  table: keyof Database & ('plaster' | 'bag' | 'mould'),
): Promise<number> {
  const { total } = await db
    .selectFrom(table)
    .select((eb) => eb.fn.countAll<number>().as('total'))
    .executeTakeFirstOrThrow()
  return total
}
