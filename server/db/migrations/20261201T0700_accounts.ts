import { sql, type Kysely } from 'kysely'

/**
 * A name and a password, for whoever is somewhere without a code; one for all workshops that they belong to. It stands in no
 * workshop, so that the application reaches it by these functions alone.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table account (
      id uuid primary key,
      name text not null check (length(name) between 1 and 60),
      password_hash text not null check (length(password_hash) <= 400),
      created_at timestamptz not null default now()
    )`.execute(db)
  await sql`create unique index account_by_name on account (lower(name))`.execute(db)
  await sql`alter table account enable row level security`.execute(db)
  await sql`alter table person add column account_id uuid references account (id)`.execute(db)
  await sql`create index person_by_account on person (account_id) where account_id is not null`.execute(db)
  await sql`grant select, insert, update on account to ripples_definer`.execute(db)
  await sql`grant select on person to ripples_definer`.execute(db)
  await sql`grant update (account_id) on person to ripples_definer`.execute(db)
  await sql`
    create function account_named(wanted text) returns table (id uuid, password_hash text)
    language sql stable security definer as $$
      select a.id, a.password_hash from account a where lower(a.name) = lower(wanted)
    $$`.execute(db)
  await sql`
    create function account_of(person uuid) returns table (id uuid, name text, password_hash text)
    language sql stable security definer as $$
      select a.id, a.name, a.password_hash from account a join person p on p.account_id = a.id
      where p.workshop_id = current_workshop() and p.id = person
    $$`.execute(db)
  // Of a person of the connection's own workshop: theirs, or a new one.
  await sql`
    create function put_account(person uuid, account_name text, hash text) returns void
    language plpgsql security definer as $$
    declare known uuid;
    begin
      select p.account_id into known from person p where p.workshop_id = current_workshop() and p.id = person for update;
      if not found then raise exception 'no such person' using errcode = 'P0002'; end if;
      if known is null then
        known := gen_random_uuid();
        insert into account (id, name, password_hash) values (known, account_name, hash);
        update person p set account_id = known where p.workshop_id = current_workshop() and p.id = person;
      else
        update account a set name = account_name, password_hash = hash where a.id = known;
      end if;
    end $$`.execute(db)
  await sql`
    create function places_of_account(account uuid)
    returns table (workshop_id uuid, workshop_name text, person_id uuid, role text)
    language sql stable security definer as $$
      select p.workshop_id, s.workshop_name, p.id, p.role
      from person p join settings s on s.workshop_id = p.workshop_id
      where p.account_id = account and p.gone_at is null order by s.workshop_name, p.workshop_id
    $$`.execute(db)
  for (const signature of [
    'account_named(text)',
    'account_of(uuid)',
    'put_account(uuid, text, text)',
    'places_of_account(uuid)',
  ]) {
    await sql`alter function ${sql.raw(signature)} set search_path = pg_catalog, public, pg_temp`.execute(db)
    await sql`alter function ${sql.raw(signature)} owner to ripples_definer`.execute(db)
  }
}
