/**
 * What a backup must hold, and one written of exactly that.
 * Usage: tsx scripts/backup.ts size | sums | dump FILE PG_DUMP | good FILE | failed WHY FOLDER, as NINE_RIPPLES_OWNER_URL
 */
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import pg from 'pg'
import { BACKUP_STATUS, type BackupFailure, type BackupStatus } from '../shared/backups'

const [task, ...args] = process.argv.slice(2)

async function withOwner<T>(work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: process.env.NINE_RIPPLES_OWNER_URL })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

/** How many rows each table has, and the sum of what each row says: a row that differs by one letter gives another. */
async function sumsOf(client: pg.Client): Promise<string> {
  // Written alike, wherever it is read.
  await client.query(
    `set local timezone = 'UTC'; set local datestyle = 'ISO'; set local extra_float_digits = 1`,
  )
  const { rows: tables } = await client.query<{ name: string }>(
    `select quote_ident(tablename) as name from pg_tables where schemaname = 'public' order by 1`,
  )
  const lines: string[] = []
  for (const { name } of tables) {
    const { rows } = await client.query<{ n: string; sum: string }>(
      `select count(*) as n, coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as sum from public.${name} t`,
    )
    lines.push(`${name} ${rows[0]!.n} ${rows[0]!.sum}`)
  }
  return lines.join('\n')
}

const inOneView = <T>(work: (client: pg.Client) => Promise<T>) =>
  withOwner(async (client) => {
    await client.query('begin isolation level repeatable read read only')
    return work(client)
  })

/** Dump and sums are of one moment, whatever is recorded meanwhile. */
async function dump(file: string, pgDump: string): Promise<string> {
  return inOneView(async (client) => {
    const { rows } = await client.query<{ snapshot: string }>('select pg_export_snapshot() as snapshot')
    const url = new URL(process.env.NINE_RIPPLES_OWNER_URL!)
    const child = spawn(
      pgDump,
      [
        '-h',
        url.hostname,
        '-p',
        url.port,
        '-U',
        url.username,
        '-Fc',
        '-f',
        file,
        `--snapshot=${rows[0]!.snapshot}`,
        'postgres',
      ],
      {
        env: { ...process.env, PGPASSWORD: decodeURIComponent(url.password) },
        stdio: ['ignore', 'ignore', 'inherit'],
      },
    )
    const [[code], sums] = await Promise.all([
      once(child, 'exit') as Promise<[number | null]>,
      sumsOf(client),
    ])
    if (code !== 0) throw new Error('pg_dump failed')
    return sums
  })
}

/** What came of it, for whoever asks the application. */
function note(folder: string, change: Partial<BackupStatus>): void {
  const path = join(folder, BACKUP_STATUS)
  let known: BackupStatus = {}
  try {
    known = JSON.parse(readFileSync(path, 'utf8')) as BackupStatus
  } catch {
    // The first, or one that nobody can read any more.
  }
  writeFileSync(`${path}.part`, JSON.stringify({ ...known, ...change }))
  renameSync(`${path}.part`, path)
}

const TASKS: Record<string, () => Promise<string | void>> = {
  size: () =>
    withOwner(async (client) => {
      const { rows } = await client.query<{ mb: string }>(
        'select ceil(pg_database_size(current_database()) / 1048576.0) as mb',
      )
      return rows[0]!.mb
    }),
  sums: () => inOneView(sumsOf),
  dump: () => dump(args[0]!, args[1]!),
  good: () => {
    const file = args[0]!
    const { size } = statSync(file)
    note(dirname(file), { lastGood: { atMs: Date.now(), name: basename(file), bytes: size } })
    return Promise.resolve()
  },
  failed: () => {
    note(args[1]!, { lastFailure: { atMs: Date.now(), why: args[0] as BackupFailure } })
    return Promise.resolve()
  },
}
const said = await TASKS[task ?? '']?.()
if (said) console.log(said)
