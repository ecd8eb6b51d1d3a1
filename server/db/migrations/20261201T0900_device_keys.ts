import { sql, type Kysely } from 'kysely'

/** Keys by which devices of the network come in, each the one of the device that first came by it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table device_key (
      workshop_id uuid not null default current_workshop() references workshop (id),
      id uuid not null,
      name text not null check (length(name) between 1 and 60),
      key_hash bytea not null,
      -- As it calls itself; none has come by it yet where it is null.
      device_id text check (length(device_id) <= 64),
      created_at timestamptz not null default now(),
      ended_at timestamptz,
      primary key (workshop_id, id)
    )`.execute(db)
  await sql`
    create unique index device_key_by_device on device_key (workshop_id, device_id) where ended_at is null`.execute(
    db,
  )
  await sql`create unique index device_key_by_hash on device_key (workshop_id, key_hash)`.execute(db)
  await sql`alter table device_key enable row level security`.execute(db)
  await sql`
    create policy own_workshop on device_key to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, update on device_key to ripples_app`.execute(db)
}
