import { sql, type Kysely } from 'kysely'
import { storedPlanSchema } from '../../../shared/plans'

const BATCH = 500

/**
 * Plans of version 1 kept no bowls and got them from the models each time they were read. From here on they have what
 * the models of their time gave them; one that cannot be read stays as it is.
 */
async function keepBowls(db: Kysely<unknown>): Promise<void> {
  // Nothing about a pour changes by it: no window need fetch it again.
  await sql`alter table pour disable trigger pour_change`.execute(db)
  for (let last: string | null = null; ;) {
    const { rows } = await sql<{ id: string; plan: unknown }>`
      select id, plan from pour where plan ->> 'schemaVersion' = '1' and (${last}::uuid is null or id > ${last}::uuid)
      order by id limit ${BATCH}`.execute(db)
    if (rows.length === 0) break
    last = rows.at(-1)!.id
    const read = rows.map(({ id, plan }) => ({ id, plan: storedPlanSchema.safeParse(plan) }))
    const kept = read.flatMap(({ id, plan }) => (plan.success ? [{ id, plan: plan.data }] : []))
    await sql`
      update pour set plan = kept.plan
      from jsonb_to_recordset(${JSON.stringify(kept)}::jsonb) as kept (id uuid, plan jsonb)
      where pour.id = kept.id`.execute(db)
  }
  await sql`alter table pour enable trigger pour_change`.execute(db)
}

/** How a workshop writes its figures, ranges on labels, and plans that stay as they were planned. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table settings
      add column decimal_sign text check (decimal_sign in ('point', 'comma')),
      add column kitchen text check (kitchen in ('us', 'imperial'))`.execute(db)
  await sql`
    alter table plaster
      add column label_consistency_low double precision check (label_consistency_low between 15 and 200),
      add column label_consistency_high double precision check (label_consistency_high between 15 and 200),
      add constraint plaster_label_range check (
        (label_consistency_low is null) = (label_consistency_high is null)
        and label_consistency_low <= label_consistency and label_consistency <= label_consistency_high)`.execute(
    db,
  )
  await sql`alter table event add column plan_revision integer check (plan_revision >= 1)`.execute(db)
  await sql`
    create table plan_revision (
      pour_id uuid not null references pour (id),
      revision integer not null check (revision >= 1),
      plan jsonb not null check (jsonb_typeof(plan) = 'object'),
      primary key (pour_id, revision)
    )`.execute(db)
  await sql`
    create index event_plan_holds on event (pour_id) where type = 'plan_holds'`.execute(db)
  await keepBowls(db)
}
