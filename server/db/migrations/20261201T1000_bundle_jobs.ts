import { sql, type Kysely } from 'kysely'

/** Which of several processes has a bundle in hand: nothing of it is truth, and it goes with the process. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table bundle_job (
      workshop_id uuid not null default current_workshop() references workshop (id),
      id uuid not null,
      -- Where that process is reached by the others.
      address text not null check (length(address) <= 200),
      created_at timestamptz not null default now(),
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`alter table bundle_job enable row level security`.execute(db)
  await sql`
    create policy own_workshop on bundle_job to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, delete on bundle_job to ripples_app`.execute(db)
}
