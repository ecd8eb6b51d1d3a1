import { sql, type Kysely } from 'kysely'

/** Photos belong to a mould or to a pour: one table for both. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table mould_photo rename to photo`.execute(db)
  await sql`alter index mould_photo_by_mould rename to photo_by_mould`.execute(db)
  await sql`alter table photo rename constraint mould_photo_pkey to photo_pkey`.execute(db)
  await sql`
    alter table photo
      alter column mould_id drop not null,
      add column pour_id uuid,
      add foreign key (workshop_id, pour_id) references pour (workshop_id, id),
      add constraint photo_has_one_owner check (num_nonnulls(mould_id, pour_id) = 1)`.execute(db)
  // It named the table's former type. That a pour was photographed is told by an event of its own.
  await sql`drop trigger mould_photo_change on photo`.execute(db)
  await sql`drop function mould_photo_changed()`.execute(db)
  await sql`
    create function photo_changed() returns trigger language plpgsql as $$
    declare changed photo;
    begin
      if tg_op = 'DELETE' then changed := old; else changed := new; end if;
      if changed.mould_id is not null then
        perform note_change(changed.workshop_id, 'mould', changed.mould_id::text, null);
      end if;
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger photo_change after insert or update or delete on photo
    deferrable initially deferred for each row execute function photo_changed()`.execute(db)
  await sql`
    create index photo_by_pour on photo (workshop_id, pour_id, created_at) where pour_id is not null`.execute(
    db,
  )
}
