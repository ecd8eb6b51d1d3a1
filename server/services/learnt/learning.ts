import { sql } from 'kysely'
import { ArgumentError } from '../../../core/errors'
import { learnPace, type LearntForecast } from '../../../core/forecast'
import type { FactorId, LearnChoice, Subject } from '../../../core/learn'
import {
  diagnosePour,
  evidenceOf,
  faultsOf,
  foldPour,
  forecastPour,
  hasSetEvidence,
  isTempChannel,
  observationsOf,
  outlookOf,
  piecesWith,
  type PourFacts,
  type PourObservation,
  type PourTag,
  type ProbeTrace,
} from '../../../core/pour'
import type { Learning } from '../../../shared/learning'
import { isUnreadable, type PourRecord } from '../../../shared/records'
import type { Db } from '../../db/client'
import { readingsOf } from '../devices'
import { poursById } from '../pours/pourRecords'

/** What pours showed is worked out when somebody asks: so many of the newest at a time, so that nobody waits long. */
const AT_A_TIME = 6
/** Pours that count at most: what is older has little to say. */
const MOST_SEEN = 200

async function tracesOf(db: Db, pourId: string): Promise<ProbeTrace[]> {
  const traces = new Map<string, ProbeTrace>()
  for (const { device, channel, batch, atMs, value } of await readingsOf(db, pourId)) {
    if (!isTempChannel(channel)) continue
    const key = `${device} ${channel} ${batch}`
    const trace = traces.get(key) ?? { device, channel, batch, readings: [] }
    trace.readings.push({ atMs, tempC: value })
    traces.set(key, trace)
  }
  return [...traces.values()]
}

/** Gives way to whoever else wants the process: learning one pace takes some thirty milliseconds. */
const breathe = () => new Promise<void>((resolve) => setImmediate(resolve))

/** From here on a cause is held to be one. */
const HELD = 0.5

/** What made its faults, as tags that the log can be asked for, each with the pieces that it would explain. */
function causesOf(facts: PourFacts, learnt: LearntForecast | undefined): Shown['causes'] {
  const noted = faultsOf(facts)
  if (noted.length === 0) return {}
  const { causes } = diagnosePour(outlookOf(facts, forecastPour(facts, learnt)))
  return Object.fromEntries(
    causes.filter((c) => c.chance > HELD).map((c) => [`cause:${c.cause}`, piecesWith(facts, c.explains)]),
  )
}

interface Shown {
  observations: PourObservation[]
  causes: Partial<Record<PourTag, number>>
}

/** What one pour shows; nothing of one that no model can stand: the log shows that one as itself. */
async function shownBy(db: Db, pour: PourRecord): Promise<Shown> {
  try {
    const facts = foldPour(pour.plan, pour.events, pour.revision)
    const traces = await tracesOf(db, pour.id)
    let learnt: LearntForecast | undefined
    if (hasSetEvidence(facts, traces)) {
      await breathe()
      learnt = learnPace(evidenceOf(facts, traces)!, 0)
    }
    return { observations: observationsOf(facts, learnt, traces), causes: causesOf(facts, learnt) }
  } catch (error) {
    if (error instanceof ArgumentError) return { observations: [], causes: {} }
    throw error
  }
}

/** What one pour shows, written down. It is looked at again only once it changes. */
async function observe(db: Db, pour: PourRecord): Promise<void> {
  const { observations: found, causes } = await shownBy(db, pour)
  await db.transaction().execute(async (trx) => {
    // An event that came meanwhile has set it back to be looked at: then that counts.
    const mine = await trx
      .updateTable('pour_summary')
      .set({
        is_observed: true,
        tags: sql`array(select tag from unnest(tags) as tag where tag not like 'cause:%') || ${Object.keys(causes)}::text[]`,
        tag_pieces: sql`(
          select coalesce(jsonb_object_agg(key, value), '{}') from jsonb_each(tag_pieces) where key not like 'cause:%'
        ) || ${JSON.stringify(causes)}::jsonb`,
      })
      .where('pour_id', '=', pour.id)
      .where('event_count', '=', pour.events.length)
      .returning('pour_id')
      .executeTakeFirst()
    if (!mine) return
    await trx.deleteFrom('observation').where('pour_id', '=', pour.id).execute()
    if (found.length > 0)
      await trx
        .insertInto('observation')
        .values(
          found.map((o) => ({
            pour_id: pour.id,
            factor: o.factor,
            subject: o.subject,
            at: new Date(o.atMs),
            ratio: o.ratio,
            sigma_ln: o.sigmaLn,
          })),
        )
        .execute()
  })
}

const unobserved = (db: Db, of: readonly (Subject | 'faults')[]) =>
  db
    .selectFrom('pour_summary')
    .where('is_observed', '=', false)
    .where(sql<boolean>`teaches && ${of}::text[]`)

/** Looks through some of the newest pours that nobody has looked through. @returns how many are left. */
export async function lookThrough(db: Db, ...of: (Subject | 'faults')[]): Promise<number> {
  const next = await unobserved(db, of)
    .select('pour_id')
    .orderBy('created_at', 'desc')
    .limit(AT_A_TIME)
    .execute()
  if (next.length === 0) return 0
  const pours = await poursById(
    db,
    next.map((r) => r.pour_id),
  )
  for (const pour of pours) if (!isUnreadable(pour)) await observe(db, pour)
  const { left } = await unobserved(db, of)
    .select((eb) => eb.fn.countAll<number>().as('left'))
    .executeTakeFirstOrThrow()
  return Number(left)
}

/**
 * Under what else the same stands: a person's hands also under each name that was given to them. The first is the one that
 * is decided of.
 */
async function alike(db: Db, subject: Subject): Promise<[Subject, ...Subject[]]> {
  if (!subject.startsWith('person:')) return [subject]
  const hand = subject.slice('person:'.length)
  const rows = await db
    .selectFrom('person_name')
    .select(['person_id', 'hand'])
    .where('person_id', 'in', (q) =>
      q
        .selectFrom('person_name as mine')
        .select('mine.person_id')
        .where((e) => e.or([e('mine.hand', '=', hand), e(sql`mine.person_id::text`, '=', hand)])),
    )
    .execute()
  return rows.length === 0
    ? [subject]
    : [`person:${rows[0]!.person_id}`, ...rows.map((r) => `person:${r.hand}` as const)]
}

/** All that is known of a bag, a place, a scoop, a pair of hands or a bowl. */
export async function learningOf(db: Db, subject: Subject): Promise<Learning> {
  const subjects = await alike(db, subject)
  const pending = await lookThrough(db, ...subjects)
  const rows = await db
    .selectFrom('observation as o')
    .innerJoin('pour_summary as s', 's.pour_id', 'o.pour_id')
    .select(['o.pour_id', 'o.factor', 'o.at', 'o.ratio', 'o.sigma_ln', 's.piece'])
    .where('o.subject', 'in', subjects)
    .orderBy('o.at', 'desc')
    .limit(MOST_SEEN)
    .execute()
  const seen: Learning['seen'] = {}
  for (const r of rows)
    (seen[r.factor] ??= []).push({
      pourId: r.pour_id,
      piece: r.piece,
      atMs: r.at.getTime(),
      ratio: r.ratio,
      sigmaLn: r.sigma_ln,
    })
  const choices = await db.selectFrom('learn_choice').selectAll().where('subject', '=', subjects[0]).execute()
  return {
    subject,
    seen,
    choices: Object.fromEntries(
      choices.map((c): [FactorId, LearnChoice] => [
        c.factor,
        { off: c.is_off, sinceMs: c.since?.getTime() ?? 0, leftOut: c.left_out },
      ]),
    ),
    pending,
  }
}

/** What a caster decided about a factor of a subject. Said again it is the same. */
export async function chooseLearning(
  db: Db,
  subject: Subject,
  factor: FactorId,
  { off, sinceMs, leftOut }: LearnChoice,
): Promise<Learning> {
  const row = { is_off: off, since: sinceMs === 0 ? null : new Date(sinceMs), left_out: [...leftOut] }
  const [decided] = await alike(db, subject)
  await db
    .insertInto('learn_choice')
    .values({ subject: decided, factor, ...row })
    .onConflict((c) => c.columns(['workshop_id', 'subject', 'factor']).doUpdateSet(row))
    .execute()
  return learningOf(db, subject)
}
