import { isDeepStrictEqual } from 'node:util'
import { sql, type Insertable, type Transaction } from 'kysely'
import { liveEvents, summarisePour, type PourSummary, type PourTag } from '../../../core/pour'
import { isUnreadable, type PourAnswer } from '../../../shared/records'
import type { Db } from '../../db/client'
import type { Database, PourSummaryTable } from '../../db/schema'

/**
 * What lists show and sums count of a pour, kept beside it: the fold is the truth, and all of this can be made again from
 * it (`rebuildSummaries`).
 */

type Trx = Transaction<Database>
type Lines = Pick<PourSummary, 'draws' | 'uses' | 'heeds'> & { row: SummaryColumns }

type SummaryColumns = Omit<Insertable<PourSummaryTable>, 'pour_id' | 'created_at'>

/** What a search looks in: a line for each text, a space before each word. */
export const searchable = (...texts: string[]) => texts.map((t) => ` ${t.toLowerCase()}`).join('\n')

/** How many pieces have each fault, by its tag. */
export const faultTags = ({ faulty }: Pick<PourSummary, 'faulty'>) =>
  Object.fromEntries(Object.entries(faulty).map(([kind, pieces]) => [`fault:${kind}`, pieces]))

/** A record that cannot be read is listed under what can be made out of it. */
function linesOfUnreadable(
  id: string,
  why: readonly string[],
  raw: { plan: unknown; events: unknown[] },
): Lines {
  const said = (raw.plan as { piece?: unknown } | null)?.piece
  const piece = typeof said === 'string' && said !== '' ? said : id
  const ended = (raw.events as { id: string; type: string; voids_event_id: string | null }[]).some(
    (e, _, all) => e.type === 'finished' && !all.some((v) => v.voids_event_id === e.id),
  )
  return {
    row: {
      piece,
      mould: '',
      plaster: '',
      searched: searchable(piece),
      consistency: null,
      mould_id: null,
      plaster_id: null,
      actual_consistency: null,
      is_open: !ended,
      stage: 'mould',
      rings: '[0,0,0,0,0,0,0,0,0]',
      verdict: null,
      good: 0,
      usable: 0,
      failed: 0,
      abandoned: 0,
      tag_pieces: '{}',
      reason: '',
      unreadable: why.join('\n'),
      teaches: [],
      is_observed: true,
      event_count: 0,
      tags: [],
      casts: 0,
      cost: null,
      dry_days: null,
      place_id: null,
      ended_at: null,
      upkeep_act: null,
      upkeep_at: null,
    },
    draws: [],
    uses: [],
    heeds: [],
  }
}

function linesOf(pour: PourAnswer): Lines {
  if (isUnreadable(pour)) return linesOfUnreadable(pour.id, pour.unreadable, pour.raw)
  let sum: PourSummary
  try {
    sum = summarisePour(pour.plan, pour.events, pour.revision)
  } catch (error) {
    // A record that no model can stand is shown as itself; everything else goes on.
    const why = error instanceof Error ? error.message : String(error)
    const live = liveEvents(pour.events).map((e) => ({ id: e.id, type: e.body.type, voids_event_id: null }))
    return linesOfUnreadable(pour.id, [why], { plan: pour.plan, events: live })
  }
  // Why it came out so is a model's to say: worked out when somebody asks, as what it teaches is.
  const faults = sum.tags.some((t) => t.startsWith('fault:'))
  const teaches = [...sum.teaches, ...(faults ? (['faults'] as const) : [])]
  return {
    row: {
      piece: sum.piece,
      mould: sum.mould,
      plaster: sum.plaster,
      searched: searchable(sum.piece, sum.mould, sum.plaster),
      consistency: sum.consistency,
      mould_id: sum.mouldId ?? null,
      plaster_id: sum.plasterId ?? null,
      actual_consistency: sum.actualConsistency ?? null,
      is_open: sum.open,
      stage: sum.stage,
      rings: JSON.stringify(sum.rings.map((r) => Math.round(r * 100) / 100)),
      verdict: sum.verdict ?? null,
      good: 0,
      usable: 0,
      failed: 0,
      abandoned: 0,
      ...sum.ended,
      tag_pieces: JSON.stringify(faultTags(sum)),
      reason: sum.reason,
      unreadable: null,
      teaches,
      is_observed: teaches.length === 0,
      event_count: pour.events.length,
      tags: sum.tags,
      casts: sum.casts,
      cost: sum.cost ?? null,
      dry_days: sum.dryDays ?? null,
      place_id: sum.placeId ?? null,
      ended_at: sum.endedAtMs === undefined ? null : new Date(sum.endedAtMs),
      upkeep_act: sum.upkeep?.act ?? null,
      upkeep_at: sum.upkeep ? new Date(sum.upkeep.fromMs) : null,
    },
    draws: sum.draws,
    uses: sum.uses,
    heeds: sum.heeds,
  }
}

/** Sets a bag's running sums by everything drawn from it since it was last weighed. */
export async function sumBag(db: Db, bagId: string): Promise<void> {
  await sql`
    update bag set taken_g = sums.taken, taken_by_pours = sums.pours
    from (
      select b.id, coalesce(sum(d.mass_g), 0) as taken, count(distinct d.pour_id)::int as pours
      from bag b left join bag_draw d on d.bag_id = b.id and d.drawn_at > coalesce(b.counted_at, '-infinity')
      where b.id = ${bagId} group by b.id
    ) sums
    where bag.id = sums.id and (bag.taken_g, bag.taken_by_pours) is distinct from (sums.taken, sums.pours)`.execute(
    db,
  )
}

/** The same for what one pour changed: only the difference is put on. */
async function updateDraws(trx: Trx, pourId: string, draws: PourSummary['draws']): Promise<void> {
  const before = await trx.selectFrom('bag_draw').selectAll().where('pour_id', '=', pourId).execute()
  const now = draws.map((d) => ({
    pour_id: pourId,
    batch: d.batch,
    bag_id: d.bagId,
    drawn_at: new Date(d.atMs),
    mass_g: d.massG,
  }))
  const same = (a: { batch: number }, b: { batch: number }) => a.batch === b.batch
  const plain = before.map(({ pour_id, batch, bag_id, drawn_at, mass_g }) => ({
    pour_id,
    batch,
    bag_id,
    drawn_at,
    mass_g,
  }))
  if (
    plain.length === now.length &&
    plain.every((p) =>
      isDeepStrictEqual(
        p,
        now.find((n) => same(n, p)),
      ),
    )
  )
    return
  await trx.deleteFrom('bag_draw').where('pour_id', '=', pourId).execute()
  if (now.length > 0) await trx.insertInto('bag_draw').values(now).execute()
  const bagIds = [...new Set([...before, ...now].map((d) => d.bag_id))].sort()
  for (const bagId of bagIds) {
    const bag = await trx
      .selectFrom('bag')
      .select('counted_at')
      .where('id', '=', bagId)
      .forUpdate()
      .executeTakeFirst()
    // Thrown away since: nobody counts it any more.
    if (!bag) continue
    const since = (all: { bag_id: string; drawn_at: Date; mass_g: number }[]) =>
      all.filter((d) => d.bag_id === bagId && (bag.counted_at === null || d.drawn_at > bag.counted_at))
    const [was, is] = [since(before), since(now)]
    const mass = (all: { mass_g: number }[]) => all.reduce((sum, d) => sum + d.mass_g, 0)
    await trx
      .updateTable('bag')
      .set((eb) => ({
        taken_g: eb('taken_g', '+', mass(is) - mass(was)),
        taken_by_pours: eb('taken_by_pours', '+', Math.sign(is.length) - Math.sign(was.length)),
      }))
      .where('id', '=', bagId)
      .execute()
  }
}

async function updateUses(trx: Trx, pourId: string, piece: string, uses: PourSummary['uses']): Promise<void> {
  const before = await trx.selectFrom('mould_use').selectAll().where('pour_id', '=', pourId).execute()
  const now = uses.map((u) => ({
    mould_id: u.mouldId,
    count: u.count,
    piece,
    poured_at: u.pouredAtMs === undefined ? null : new Date(u.pouredAtMs),
    outcomes: u.outcomes,
    faults: u.faults,
    damages: u.damages,
  }))
  const plain = before.map(({ mould_id, count, piece: was, poured_at, outcomes, faults, damages }) => ({
    mould_id,
    count,
    piece: was,
    poured_at,
    outcomes,
    faults,
    damages,
  }))
  const casts = (all: typeof now, mouldId: string) => {
    const use = all.find((u) => u.mould_id === mouldId)
    return use?.poured_at ? use.count : 0
  }
  const changed = [...new Set([...plain, ...now].map((u) => u.mould_id))]
    .filter((id) => {
      const [was, is] = [plain, now].map((all) => all.find((u) => u.mould_id === id))
      return !isDeepStrictEqual(was, is)
    })
    .sort()
  if (changed.length === 0) return
  await trx.deleteFrom('mould_use').where('pour_id', '=', pourId).execute()
  if (now.length > 0)
    await trx
      .insertInto('mould_use')
      .values(
        now.map((u) => ({
          ...u,
          pour_id: pourId,
          outcomes: JSON.stringify(u.outcomes),
          damages: JSON.stringify(u.damages),
        })),
      )
      .execute()
  for (const id of changed)
    await trx
      .updateTable('mould')
      .set((eb) => ({ casts_here: eb('casts_here', '+', casts(now, id) - casts(plain, id)) }))
      .where('id', '=', id)
      .execute()
}

async function updateHeeds(trx: Trx, pourId: string, heeds: PourSummary['heeds']): Promise<void> {
  const before = await trx.selectFrom('heed').selectAll().where('pour_id', '=', pourId).execute()
  const now = heeds.map(({ subject, cause, atMs }) => ({
    pour_id: pourId,
    subject,
    cause,
    at: new Date(atMs),
  }))
  const key = ({ subject, cause }: { subject: string; cause: string }) => `${subject} ${cause}`
  if (isDeepStrictEqual(new Set(before.map(key)), new Set(now.map(key)))) return
  await trx.deleteFrom('heed').where('pour_id', '=', pourId).execute()
  if (now.length > 0) await trx.insertInto('heed').values(now).execute()
}

const isFaulty = ({ teaches }: Pick<SummaryColumns, 'teaches'>) => teaches.includes('faults')
/** Why it came out so stands as it was found, until it is worked out anew. */
const CAUSES_STAND = {
  tags: sql<
    PourTag[]
  >`excluded.tags || array(select tag from unnest(pour_summary.tags) as tag where tag like 'cause:%')`,
  tag_pieces: sql<string>`excluded.tag_pieces || (
    select coalesce(jsonb_object_agg(key, value), '{}') from jsonb_each(pour_summary.tag_pieces) where key like 'cause:%')`,
}

/** Brings a pour's summary up to date. The caller holds the pour's row; bags and moulds are taken after it, by id. */
export async function summarise(trx: Trx, pour: PourAnswer): Promise<void> {
  const { row, draws, uses, heeds } = linesOf(pour)
  await trx
    .insertInto('pour_summary')
    .values({ pour_id: pour.id, created_at: new Date(pour.createdAtMs), ...row })
    .onConflict((c) =>
      c.columns(['workshop_id', 'pour_id']).doUpdateSet({ ...row, ...(isFaulty(row) ? CAUSES_STAND : {}) }),
    )
    .execute()
  // What was taken back teaches no longer; what it teaches still is looked at anew when somebody asks.
  await trx
    .deleteFrom('observation')
    .where('pour_id', '=', pour.id)
    .where(sql<boolean>`subject <> all (${row.teaches}::text[])`)
    .execute()
  await updateDraws(trx, pour.id, draws)
  await updateUses(trx, pour.id, row.piece, uses)
  await updateHeeds(trx, pour.id, heeds)
}

/** Every running sum, from the lines it is a sum of. */
async function sumEverything(db: Db): Promise<void> {
  for (const { id } of await db.selectFrom('bag').select('id').execute()) await sumBag(db, id)
  await sql`
    update mould set casts_here = sums.casts
    from (
      select m.id, coalesce(sum(u.count), 0)::int as casts
      from mould m left join mould_use u on u.mould_id = m.id and u.poured_at is not null group by m.id
    ) sums
    where mould.id = sums.id and mould.casts_here <> sums.casts`.execute(db)
}

const BATCH = 200

/** Sums up by month what the summaries say. Otherwise the database does it as each is written (`figure_sum`). */
export async function sumFigures(db: Db): Promise<void> {
  await db.transaction().execute(async (trx) => {
    // Who ends a pour meanwhile waits, and is counted after.
    await sql`lock table figure_sum in exclusive mode`.execute(trx)
    await sql`delete from figure_sum`.execute(trx)
    await sql`
      insert into figure_sum (month, kind, key, days, pours, casts, cost)
      select l.month, l.kind, l.key, l.days, count(*), sum(l.casts), sum(l.cost)
      from pour_summary s, figure_lines(s) as l group by 1, 2, 3, 4`.execute(trx)
  })
}

/**
 * Makes summaries from the pours themselves: those that lack one, or all of them.
 * @param answersOf reads pours as the application does.
 * @param onProgress hears how many are done.
 */
export async function rebuildSummaries(
  db: Db,
  which: 'missing' | 'all',
  answersOf: (trx: Db, ids: readonly string[]) => Promise<PourAnswer[]>,
  onProgress: (done: number) => void = () => {},
): Promise<number> {
  let done = 0
  for (let last = '00000000-0000-0000-0000-000000000000'; ;) {
    const rows = await db
      .selectFrom('pour')
      .select('id')
      .where('id', '>', last)
      .$if(which === 'missing', (q) =>
        q.where(({ not, exists, selectFrom }) =>
          not(
            exists(
              selectFrom('pour_summary').select('pour_id').whereRef('pour_summary.pour_id', '=', 'pour.id'),
            ),
          ),
        ),
      )
      .orderBy('id')
      .limit(BATCH)
      .execute()
    if (rows.length === 0) {
      await sumEverything(db)
      if (which === 'all') await sumFigures(db)
      return done
    }
    await db.transaction().execute(async (trx) => {
      const ids = rows.map((r) => r.id)
      await trx.selectFrom('pour').select('id').where('id', 'in', ids).orderBy('id').forUpdate().execute()
      for (const answer of await answersOf(trx, ids)) await summarise(trx, answer)
    })
    done += rows.length
    last = rows.at(-1)!.id
    onProgress(done)
  }
}
