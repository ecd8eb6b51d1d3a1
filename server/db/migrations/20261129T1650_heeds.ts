import { sql, type Kysely } from 'kysely'

/** Causes that somebody accepted, summed up from the pours' events: a plan asks by what they stay with. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table heed (
      workshop_id uuid not null default current_workshop() references workshop (id),
      pour_id uuid not null,
      subject text not null check (subject ~ '^(mould|recipe|bag):'),
      cause text not null,
      at timestamptz not null,
      primary key (workshop_id, pour_id, subject, cause),
      foreign key (workshop_id, pour_id) references pour (workshop_id, id)
    )`.execute(db)
  await sql`create index heed_by_subject on heed (workshop_id, subject)`.execute(db)
  await sql`create index heed_by_time on heed (workshop_id, at desc)`.execute(db)
  await sql`alter table heed enable row level security`.execute(db)
  await sql`
    create policy own_workshop on heed to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, update, delete on heed to ripples_app`.execute(db)
}
