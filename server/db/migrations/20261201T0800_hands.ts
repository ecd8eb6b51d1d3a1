import { sql, type Kysely } from 'kysely'

/** As `handOfName` writes it now; what was learnt before stands under the name as it was typed. */
const keyOf = (subject: string) =>
  `person:${subject.slice('person:'.length).trim().normalize('NFC').toLowerCase()}`

/** Names that a person had before they were let in: what was learnt of those hands is learnt of them. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table person_name (
      workshop_id uuid not null default current_workshop(),
      -- As it was said, and what it is known by.
      name text not null check (length(name) between 1 and 60),
      hand text not null check (length(hand) between 1 and 120),
      person_id uuid not null,
      primary key (workshop_id, hand),
      foreign key (workshop_id, person_id) references person
    )`.execute(db)
  await sql`create index person_name_by_person on person_name (workshop_id, person_id)`.execute(db)
  await sql`
    create function person_name_changed() returns trigger language plpgsql as $$
    declare row person_name;
    begin
      row := coalesce(new, old);
      perform note_change(row.workshop_id, 'person', row.person_id::text, null);
      return null;
    end $$`.execute(db)
  await sql`
    create constraint trigger person_name_change after insert or delete on person_name
    deferrable initially deferred for each row execute function person_name_changed()`.execute(db)
  await sql`alter table person_name enable row level security`.execute(db)
  await sql`
    create policy own_workshop on person_name to ripples_app
    using (workshop_id = current_workshop()) with check (workshop_id = current_workshop())`.execute(db)
  await sql`grant select, insert, delete on person_name to ripples_app`.execute(db)

  const { rows } = await sql<{ workshop_id: string; subject: string }>`
    select distinct workshop_id, subject from observation where subject like 'person:%'
    union select distinct workshop_id, subject from learn_choice where subject like 'person:%'
    union select s.workshop_id, t.subject from pour_summary s, unnest(s.teaches) as t (subject) where t.subject like 'person:%'
    order by 1, 2`.execute(db)
  for (const { workshop_id, subject } of rows) {
    const now = keyOf(subject)
    if (now === subject) continue
    await sql`
      update observation set subject = ${now} where workshop_id = ${workshop_id} and subject = ${subject}`.execute(
      db,
    )
    await sql`
      update pour_summary set teaches = array_replace(teaches, ${subject}, ${now})
      where workshop_id = ${workshop_id} and ${subject} = any (teaches)`.execute(db)
    // Of what was decided of two spellings the one of the lower-case name stands.
    await sql`
      update learn_choice c set subject = ${now} where workshop_id = ${workshop_id} and subject = ${subject}
        and not exists (select from learn_choice o
          where o.workshop_id = c.workshop_id and o.subject = ${now} and o.factor = c.factor)`.execute(db)
    await sql`
      delete from learn_choice where workshop_id = ${workshop_id} and subject = ${subject}`.execute(db)
  }
}
