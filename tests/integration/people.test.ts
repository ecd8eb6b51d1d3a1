import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openDatabase, type OpenDatabase } from '../../server/db/client'
import { MS_PER } from '../../core/units'
import type { Learning } from '../../shared/learning'
import type { HeldByPerson, HeldTaken, PeopleAnswer } from '../../shared/people'
import { DEMO_MOULDS } from '../../server/demo/moulds'
import { insertPhoto, reducePhoto } from '../../server/services/photos'
import { insertMould } from '../../server/services/shelf/moulds'
import {
  addPerson,
  changePerson,
  offerPairing,
  peopleById,
  pruneSessions,
  putOut,
} from '../../server/services/people'
import { makeWorkshop } from '../../server/services/workshops'
import { PATHS, ROUTES } from '../../server/utils/apiPaths'
import { RIGHTS_OF, ROLES, type Right, type Role } from '../../shared/roles'
import { placeOf } from '../../shared/place'
import { until } from '../support/until'
import { withServer } from '../support/suite'
import { eventAt, testPlan, wholeRun } from '../unit/plans'

const suite = withServer()
let app: OpenDatabase
beforeAll(() => (app = openDatabase(suite.database.url, () => {})))
afterAll(() => app.close())
const home = () => suite.database.workshopId
const homeDb = () => app.workshop(home())

/** As a browser of the network asks, with what it was let in with. */
function fromNetwork(method: string, path: string, body?: unknown, headers: Record<string, string> = {}) {
  const { address } = suite.server
  return fetch(`${address}${path}`, {
    method,
    headers: {
      'x-ripples-network': '1',
      origin: address,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
}
const codeOf = async (answer: Response) =>
  [answer.status, ((await answer.json()) as { error?: { code: string } }).error?.code] as const

interface LetIn {
  personId: string
  cookie: string
}
const cookieOf = (answer: Response) =>
  answer.headers
    .getSetCookie()
    .map((c) => c.split(';')[0]!)
    .filter((c) => !c.endsWith('='))
    .join('; ')

const tokenFor = async (personId: string) =>
  (
    (await suite.send('POST', `/api/people/${personId}/pairing`, { for: 'device' })).json as never as {
      token: string
    }
  ).token

/** Somebody new at the desk, and their phone. */
async function letIn(name: string, role: Role): Promise<LetIn> {
  const personId = randomUUID()
  expect((await suite.send('POST', '/api/people', { id: personId, name, role })).status).toBe(200)
  const token = await tokenFor(personId)
  const answer = await fromNetwork('POST', '/api/pair', { token, device: 'Phone' })
  expect(answer.status).toBe(200)
  return { personId, cookie: cookieOf(answer) }
}

const METHODS = ['GET', 'POST', 'PUT', 'DELETE'] as const
const everyRoute = PATHS.flatMap((path) =>
  METHODS.flatMap((method) => {
    const right = ROUTES[path as `/api/${string}`]![method]
    return right === undefined ? [] : [{ path, method, right }]
  }),
)
/** The code of an answer, and no more of one that does not end. */
async function ask(method: string, path: string, cookie?: string) {
  const body = method === 'GET' || method === 'DELETE' ? undefined : {}
  const answer = await fromNetwork(
    method,
    path.replace(':id', randomUUID()),
    body,
    cookie === undefined ? {} : { cookie },
  )
  if (!answer.headers.get('content-type')?.includes('json')) {
    await answer.body?.cancel()
    return { status: answer.status, code: undefined }
  }
  const [status, code] = await codeOf(answer)
  return { status, code }
}

it('a stranger of the network gets nothing of any route', async () => {
  const { cookie } = await letIn('Odile', 'keeper')
  const port = new URL(suite.server.address).port
  const strangers = [
    undefined,
    `ripples_session_${port}=x`,
    // Sealed, and changed in one letter.
    cookie.replace(/(ripples_session_\d+=[^;]{40})./, '$1~'),
    // In a workshop by name alone.
    `ripples_workshop_${port}=${home()}`,
  ]
  for (const { path, method, right } of everyRoute.filter((r) => r.right !== 'open'))
    for (const stranger of strangers)
      expect(await ask(method, path, stranger), `${method} ${path} (${right})`).toEqual({
        status: 401,
        code: 'sign_in',
      })
  expect((await ask('GET', '/api/health')).status).toBe(200)
})

it.each(ROLES)('a %s does what the table says, route by route', async (role) => {
  const { cookie } = await letIn(`One ${role}`, role)
  const may = (right: Right) => RIGHTS_OF[role].includes(right)
  for (const { path, method, right } of everyRoute) {
    if (right === 'open') continue
    // To leave is the last that one does.
    if (path === '/api/me' && method === 'DELETE') continue
    const { status, code } = await ask(method, path, cookie)
    if (may(right)) expect([401, 403], `${method} ${path}`).not.toContain(status)
    else expect([status, code], `${method} ${path}`).toEqual([403, 'not_allowed'])
  }
})

it('a code lets one device in, once, and not for long', async () => {
  const id = randomUUID()
  await addPerson(homeDb(), id, { name: 'Mina', role: 'caster' })
  const pair = async (token: string, headers = {}) =>
    codeOf(await fromNetwork('POST', '/api/pair', { token, device: 'Phone' }, headers))
  const first = await tokenFor(id)
  const second = await tokenFor(id)
  // Another one took its place.
  expect(await pair(first)).toEqual([410, 'code_spent'])
  // Of two at once, one.
  const both = await Promise.all([pair(second), pair(second)])
  expect(both.map(([status]) => status).sort()).toEqual([200, 410])
  expect(await pair(second)).toEqual([410, 'code_spent'])
  const old = await tokenFor(id)
  await sql`update pairing set expires_at = now() where person_id = ${id}`.execute(suite.database.owner)
  expect(await pair(old)).toEqual([410, 'code_spent'])
  // Of a workshop that is there, for a person who is not in it; and what is no code at all.
  const elsewhere = randomUUID()
  await makeWorkshop(app, elsewhere)
  const bytes = Buffer.from(await tokenFor(id), 'base64url')
  Buffer.from(elsewhere.replaceAll('-', ''), 'hex').copy(bytes)
  for (const none of [bytes.toString('base64url'), '', 'x'.repeat(64), '%'])
    expect(await pair(none)).toEqual([410, 'code_spent'])
  // At the machine itself there is nothing to be let into.
  expect((await suite.send('POST', '/api/pair', { token: await tokenFor(id), device: 'Phone' })).status).toBe(
    403,
  )
})

it('whoever is put out is out at once, on that device or on all of them, and so is an open stream', async () => {
  const ines = await letIn('Ines', 'caster')
  const tomas = await letIn('Tomas', 'looker')
  const bench = async ({ cookie }: LetIn) =>
    (await fromNetwork('GET', '/api/bench', undefined, { cookie })).status
  const stream = await fromNetwork('GET', '/api/changes', undefined, { cookie: ines.cookie })
  const heard: string[] = []
  const ended = (async () => {
    for await (const piece of stream.body!) heard.push(Buffer.from(piece).toString())
  })()
  await until('the stream to say hello', () => heard.join('').includes('hello'))
  const listed = (await suite.send('GET', '/api/people')).json as never as {
    people: { id: string; devices: { id: string; name: string }[] }[]
  }
  const [device] = listed.people.find((p) => p.id === ines.personId)!.devices
  expect(device!.name).toBe('Phone')
  expect((await suite.send('DELETE', `/api/sessions/${device!.id}`)).status).toBe(200)
  await ended
  expect(heard.join('')).not.toContain('"topic":"person"')
  expect([await bench(ines), await bench(tomas)]).toEqual([401, 200])
  // With other rights one comes in anew; from where one had got to, and stays.
  const { seq } = (await (
    await fromNetwork('GET', '/api/time', undefined, { cookie: tomas.cookie })
  ).json()) as { seq: number }
  const role = { name: 'Tomas', role: 'caster' }
  expect((await suite.send('PUT', `/api/people/${tomas.personId}`, role)).status).toBe(200)
  const again = await fromNetwork('GET', `/api/changes?since=${seq}`, undefined, { cookie: tomas.cookie })
  const bowl = { revision: null, bowl: { name: 'Heard by him', volumeMl: 900, tareG: 90 } }
  expect((await suite.send('PUT', `/api/bowls/${randomUUID()}`, bowl)).status).toBe(200)
  let text = ''
  for await (const piece of again.body!)
    if ((text += Buffer.from(piece).toString()).includes('Heard by him')) break
  expect(text).toContain('Heard by him')
  expect((await suite.send('DELETE', `/api/people/${tomas.personId}`)).status).toBe(200)
  expect(await bench(tomas)).toBe(401)
  expect((await suite.send('POST', `/api/people/${tomas.personId}/pairing`, { for: 'device' })).status).toBe(
    404,
  )
  // Their name is free again; what they were let in with is not.
  await letIn('tomas', 'caster')
  expect(await bench(tomas)).toBe(401)
})

it('what somebody records is theirs, whoever their window says they are; a button stays a button', async () => {
  const { personId, cookie } = await letIn('Ann', 'caster')
  const pour = randomUUID()
  await suite.send('POST', '/api/pours', { id: pour, plan: testPlan() })
  await homeDb().insertInto('device').values({ id: 'elbow', name: 'Elbow button' }).execute()
  const record = async (who: string) => {
    const event = { id: randomUUID(), occurredAtMs: Date.now() - 10, who, body: { type: 'note', text: 'x' } }
    const answer = await fromNetwork('POST', `/api/pours/${pour}/events`, event, { cookie })
    return ((await answer.json()) as { who: string }).who
  }
  expect([await record('Mina'), await record('Elbow button'), await record('')]).toEqual([
    'Ann',
    'Elbow button',
    'Ann',
  ])
  const kept = await homeDb().selectFrom('event').select('who_id').where('pour_id', '=', pour).execute()
  expect(kept.map((e) => e.who_id).sort()).toEqual([personId, personId, null].sort())
  // By another name it is still them.
  await changePerson(homeDb(), personId, { name: 'Anne', role: 'caster' })
  expect(await record('Ann')).toBe('Anne')
})

it('a session that is used from elsewhere shows where, and is out at once for both', async () => {
  const { personId, cookie } = await letIn('Vera', 'caster')
  const from = (address: string) =>
    fromNetwork('GET', '/api/bench', undefined, { cookie, 'x-forwarded-for': address })
  const device = async () => (await peopleById(homeDb(), [personId]))[0]!.devices[0]!
  expect((await from('192.0.2.7')).status).toBe(200)
  expect((await device()).seenFrom).toBe('192.0.2.7')
  // What stands before the last of them whoever asks may have written.
  expect((await from('192.0.2.7, 198.51.100.9')).status).toBe(200)
  expect((await device()).seenFrom).toBe('198.51.100.9')
  await suite.send('DELETE', `/api/sessions/${(await device()).id}`)
  expect([(await from('192.0.2.7')).status, (await from('198.51.100.9')).status]).toEqual([401, 401])
})

it('what was put out long ago is cleared away, and nothing else', async () => {
  const [old, here] = [await letIn('Uwe', 'caster'), await letIn('Una', 'caster')]
  await sql`
    update session set ended_at = now() - interval '91 days' where person_id = ${old.personId}`.execute(
    homeDb(),
  )
  await pruneSessions(homeDb())
  const left = await homeDb().selectFrom('session').select('person_id').execute()
  const ids = left.map((s) => s.person_id)
  expect([ids.includes(old.personId), ids.includes(here.personId)]).toEqual([false, true])
})

it('the last keeper goes only where somebody sits at the machine', async () => {
  const workshopId = randomUUID()
  await makeWorkshop(app, workshopId)
  const db = app.workshop(workshopId)
  const keepers: LetIn[] = []
  for (const name of ['Jan', 'Jon']) {
    const personId = randomUUID()
    await addPerson(db, personId, { name, role: 'keeper' })
    const { token } = await offerPairing(db, workshopId, personId)
    keepers.push({
      personId,
      cookie: cookieOf(await fromNetwork('POST', '/api/pair', { token, device: 'Desk' })),
    })
  }
  const [jan, jon] = keepers as [LetIn, LetIn]
  const as = (name: string, role: Role) =>
    fromNetwork('PUT', `/api/people/${jan.personId}`, { name, role }, { cookie: jan.cookie })
  expect(
    (await fromNetwork('DELETE', `/api/people/${jon.personId}`, undefined, { cookie: jan.cookie })).status,
  ).toBe(200)
  expect(await codeOf(await as('Jan', 'caster'))).toEqual([409, 'last_keeper'])
  const out = await fromNetwork('DELETE', `/api/people/${jan.personId}`, undefined, { cookie: jan.cookie })
  expect(await codeOf(out)).toEqual([409, 'last_keeper'])
  expect((await as('Jana', 'keeper')).status).toBe(200)
  await putOut(db, jan.personId)
})

it('what somebody recorded who was put out meanwhile waits for a keeper, who takes or refuses it', async () => {
  const { personId, cookie } = await letIn('Gerd', 'caster')
  const pour = randomUUID()
  await suite.send('POST', '/api/pours', { id: pour, plan: testPlan() })
  const noteOf = (text: string) => ({
    id: randomUUID(),
    occurredAtMs: Date.now() - 1000,
    who: 'Gerd',
    body: { type: 'note', text },
  })
  const leave = (events: object[], pourId = pour) =>
    fromNetwork('POST', '/api/held', { events: events.map((event) => ({ pourId, event })) }, { cookie })
  // As long as somebody is let in there is nothing to be left; and nobody else leaves anything.
  expect((await leave([noteOf('too early')])).status).toBe(401)
  expect((await fromNetwork('POST', '/api/held', { events: [] })).status).toBe(401)
  await suite.send('DELETE', `/api/people/${personId}`)
  const twenty = Array.from({ length: 20 }, (_, i) => noteOf(`${i}`))
  const lost = noteOf('of no pour')
  for (let again = 0; again < 2; again++) {
    const answer = await leave(twenty)
    expect(((await answer.json()) as { held: string[] }).held).toEqual(twenty.map((e) => e.id))
  }
  expect((await leave([lost], randomUUID())).status).toBe(200)
  const waiting = async () =>
    ((await suite.send('GET', '/api/held')).json as never as HeldByPerson[]).find(
      (h) => h.personId === personId,
    )
  expect((await waiting())!.events).toHaveLength(21)
  const recorded = () =>
    homeDb().selectFrom('event').select(['id', 'who', 'who_id']).where('pour_id', '=', pour).execute()
  expect(await recorded()).toEqual([])
  const taken = (await suite.send('POST', `/api/held/${personId}/take`, {})).json as never as HeldTaken
  expect(taken).toEqual({ taken: 20, left: [{ id: lost.id, code: 'not_found' }] })
  const rows = await recorded()
  expect(rows.map((r) => r.id).sort()).toEqual(twenty.map((e) => e.id).sort())
  expect(rows.every((r) => r.who === 'Gerd' && r.who_id === personId)).toBe(true)
  // Refused, it is nothing, also where it is sent again by one who was let in anew.
  const late = noteOf('late')
  await leave([late])
  expect((await suite.send('POST', `/api/held/${personId}/refuse`, {})).status).toBe(200)
  expect(await waiting()).toBeUndefined()
  const other = await letIn('Gerda', 'caster')
  const sent = await fromNetwork('POST', `/api/pours/${pour}/events`, late, { cookie: other.cookie })
  expect(await codeOf(sent)).toEqual([409, 'refused_by_keeper'])
  // One fills no disk.
  for (let i = 0; i < 6; i++) await leave(Array.from({ length: 100 }, (_, n) => noteOf(`${i} ${n}`)))
  expect((await waiting())!.events.length).toBeLessThanOrEqual(500)
})

it('what hands were seen to do is a person’s once their names are given to them, however those were written', async () => {
  const { personId, cookie } = await letIn('Ann Marsh', 'caster')
  const plan = { ...testPlan(), ratioMethod: 'by_eye' as const, siftStage: 'lake_bed' as const }
  const check = eventAt(9 * MS_PER.min, { type: 'slurry_checked', massG: 1490, volumeMl: 1000 })
  const run = [...wholeRun().slice(0, 6), check, ...wholeRun().slice(6)]
  const pourBy = async (who: string, send: typeof suite.send) => {
    const pour = randomUUID()
    expect((await suite.send('POST', '/api/pours', { id: pour, plan })).status).toBe(200)
    const beginMs = Date.now() - 20 * MS_PER.day
    for (const { body, occurredAtMs } of run) {
      const event = { id: randomUUID(), occurredAtMs: Math.round(beginMs + occurredAtMs), who, body }
      const answer = await send('POST', `/api/pours/${pour}/events`, event)
      expect(answer.status, JSON.stringify([answer.json, event])).toBe(200)
    }
    return pour
  }
  const asAnn = async (method: string, path: string, body?: object) => {
    const answer = await fromNetwork(method, path, body, { cookie })
    return { status: answer.status, json: (await answer.json()) as never }
  }
  const first = await pourBy('Ann ', suite.send)
  const second = await pourBy('ann', suite.send)
  const third = await pourBy('', asAnn as typeof suite.send)
  const seenOf = async (subject: string) => {
    const answer = await suite.send('GET', `/api/learning?subject=${encodeURIComponent(subject)}`)
    return (answer.json as unknown as Learning).seen.sprinkled?.map((s) => s.pourId).sort() ?? []
  }
  expect(await seenOf('person:ann')).toEqual([first, second].sort())
  expect(await seenOf(`person:${personId}`)).toEqual([third])

  const people = async () => (await suite.send('GET', '/api/people')).json as unknown as PeopleAnswer
  expect((await people()).looseNames).toContain('ann')
  const give = (id: string, names: string[]) => suite.send('PUT', `/api/people/${id}/names`, { names })
  expect((await give(personId, ['Ann'])).json).toMatchObject({ names: ['Ann'] })
  expect((await people()).looseNames).not.toContain('ann')
  expect(await seenOf(`person:${personId}`)).toEqual([first, second, third].sort())
  expect(await seenOf('person:ann')).toEqual([first, second, third].sort())
  // What is decided of the one is decided of the other; a new name changes nothing; and no name is two people's.
  const choice = { off: false, sinceMs: 0, leftOut: [second] }
  await suite.send('PUT', '/api/learning', { subject: 'person:ann', factor: 'sprinkled', choice })
  await suite.send('PUT', `/api/people/${personId}`, { name: 'Ann Fell', role: 'caster' })
  const theirs = await suite.send('GET', `/api/learning?subject=person:${personId}`)
  expect(theirs.json).toMatchObject({ choices: { sprinkled: { leftOut: [second] } } })
  const other = await letIn('Fenn', 'caster')
  expect((await give(other.personId, ['ANN'])).status).toBe(409)
  await give(personId, [])
  expect(await seenOf(`person:${personId}`)).toEqual([third])
  const kept = await homeDb()
    .selectFrom('event')
    .select('who')
    .distinct()
    .where('pour_id', '=', first)
    .execute()
  expect(kept.map((e) => e.who)).toEqual(['Ann'])
})

it('what one is shown on a device is asked for anew by the next, and whoever leaves it is out', async () => {
  const { cookie } = await letIn('Rosa', 'looker')
  const bench = await fromNetwork('GET', '/api/bench', undefined, { cookie })
  expect(bench.headers.get('cache-control')).toBe('private, no-store')
  const id = randomUUID()
  const mould = randomUUID()
  const { plaster: _, ...described } = DEMO_MOULDS.ammonite
  const jpeg = await sharp({ create: { width: 9, height: 6, channels: 3, background: '#246' } })
    .jpeg()
    .toBuffer()
  await homeDb()
    .transaction()
    .execute(async (trx) => {
      await insertMould(trx, mould, { ...described, usualPlasterId: null })
      await insertPhoto(trx, { mould }, id, '', await reducePhoto(jpeg, 'mould'))
    })
  const photo = (headers = {}) => fromNetwork('GET', `/api/photos/${id}`, undefined, { cookie, ...headers })
  const first = await photo()
  expect([first.status, first.headers.get('cache-control')]).toEqual([200, 'private, no-cache'])
  const etag = first.headers.get('etag')!
  expect((await photo({ 'if-none-match': etag })).status).toBe(304)
  const left = await fromNetwork('DELETE', '/api/me', undefined, { cookie })
  expect([left.status, left.headers.get('clear-site-data')]).toEqual([200, '"cache"'])
  expect((await photo({ 'if-none-match': etag })).status).toBe(401)
})

it('a session is in its own workshop whatever its browser says, and nobody shares a name', async () => {
  const { personId, cookie } = await letIn('Bea', 'caster')
  const port = new URL(suite.server.address).port
  const other = randomUUID()
  await makeWorkshop(app, other)
  const bowl = { revision: null, bowl: { name: 'Theirs alone', volumeMl: 900, tareG: 90 } }
  const within = { cookie: `ripples_workshop_${port}=${other}` }
  expect((await suite.send('PUT', `/api/bowls/${randomUUID()}`, bowl, within)).status).toBe(200)
  const mixed = `${cookie.replace(/ripples_workshop[^;]*/, '')}; ${within.cookie}`
  const bowls = await fromNetwork('GET', '/api/bowls', undefined, { cookie: mixed })
  expect([bowls.status, await bowls.text()]).toEqual([200, expect.not.stringContaining('Theirs alone')])
  // A window that somebody else left open on it.
  const window = async (place: string) =>
    (await fromNetwork('GET', '/api/bowls', undefined, { cookie, 'x-ripples-workshop': place })).status
  expect([await window(placeOf(home(), personId)), await window(placeOf(home(), randomUUID()))]).toEqual([
    200, 409,
  ])
  const twin = { id: randomUUID(), name: 'BEA', role: 'looker' }
  expect(await suite.send('POST', '/api/people', twin)).toMatchObject({
    status: 409,
    json: { error: { code: 'name_taken', fields: [{ path: 'name' }] } },
  })
})

const GOOD = 'teal wedge of slate'
const signIn = async (name: string, password: string, from = '10.0.0.7') => {
  const answer = await fromNetwork(
    'POST',
    '/api/sign-in',
    { name, password, device: 'Computer' },
    { 'x-forwarded-for': from },
  )
  return {
    status: answer.status,
    code: answer.ok ? undefined : (await codeOf(answer))[1],
    cookie: cookieOf(answer),
  }
}

it('by name and password one is let in anywhere; which of the two was wrong nobody is told', async () => {
  const { cookie } = await letIn('Dora', 'caster')
  const put = async (body: object) => codeOf(await fromNetwork('PUT', '/api/me/password', body, { cookie }))
  for (const weak of ['short', 'password123', 'aaaaaaaaaaaa', 'i am dora here'])
    expect(await put({ name: 'Dora', password: weak }), weak).toEqual([400, 'invalid_input'])
  expect(await put({ name: 'Dora', password: GOOD })).toEqual([200, undefined])
  const there = await signIn('dora', GOOD)
  expect(there.status).toBe(200)
  expect(await signIn('Dora', `${GOOD}x`)).toMatchObject({ status: 403, code: 'wrong_password' })
  expect(await signIn('Nobody', GOOD)).toMatchObject({ status: 403, code: 'wrong_password' })
  // Another one only by whoever knows the first.
  expect(await put({ name: 'Dora', password: `${GOOD} two` })).toEqual([403, 'wrong_password'])
  expect(await put({ name: 'Dora', password: `${GOOD} two`, before: GOOD })).toEqual([200, undefined])
  expect((await signIn('Dora', GOOD)).status).toBe(403)
  expect((await signIn('Dora', `${GOOD} two`)).status).toBe(200)
  const other = await letIn('Dorothea', 'caster')
  const taken = await fromNetwork(
    'PUT',
    '/api/me/password',
    { name: 'DORA', password: GOOD },
    { cookie: other.cookie },
  )
  expect(await codeOf(taken)).toEqual([409, 'name_taken'])
  // All of one's other devices put out at once.
  const bench = async (c: string) => (await fromNetwork('GET', '/api/bench', undefined, { cookie: c })).status
  expect((await fromNetwork('DELETE', '/api/me/devices', undefined, { cookie })).status).toBe(200)
  expect([await bench(cookie), await bench(there.cookie)]).toEqual([200, 401])
})

it('a thousand wrong passwords are a few that were looked at; others go on meanwhile', async () => {
  const { cookie } = await letIn('Edda', 'looker')
  await fromNetwork('PUT', '/api/me/password', { name: 'Edda', password: GOOD }, { cookie })
  const all = await Promise.all(
    Array.from({ length: 1000 }, (_, i) => signIn('Edda', `wrong ${i}`, `10.1.0.${i % 4}`)),
  )
  const looked = all.filter((a) => a.code === 'wrong_password').length
  expect(all.every((a) => a.code === 'wrong_password' || a.code === 'too_many_attempts')).toBe(true)
  // How many exactly hangs on how long they take: each waits for longer than the one before (attempts.test.ts).
  expect(looked).toBeLessThan(100)
  expect((await fromNetwork('GET', '/api/bench', undefined, { cookie })).status).toBe(200)
})

it('whoever belongs to two workshops goes from one into the other, and into no third', async () => {
  const { cookie } = await letIn('Fenna', 'caster')
  await fromNetwork('PUT', '/api/me/password', { name: 'Fenna', password: GOOD }, { cookie })
  const [second, third] = [randomUUID(), randomUUID()]
  for (const id of [second, third]) await makeWorkshop(app, id)
  // Asked into another by a link, which she opens where she is known.
  const invited = randomUUID()
  await addPerson(app.workshop(second), invited, { name: 'Fenna', role: 'keeper' })
  const { token } = await offerPairing(app.workshop(second), second, invited, 'invitation')
  const there = cookieOf(await fromNetwork('POST', '/api/pair', { token, device: 'Phone' }, { cookie }))
  const account = await fromNetwork('GET', '/api/me/account', undefined, { cookie: there })
  const { places } = (await account.json()) as { places: { workshopId: string; role: Role }[] }
  expect(places.map((p) => [p.workshopId, p.role]).sort()).toEqual(
    [
      [home(), 'caster'],
      [second, 'keeper'],
    ].sort(),
  )
  const back = await fromNetwork('POST', '/api/me/place', { workshopId: home() }, { cookie: there })
  expect(await back.json()).toMatchObject({ workshopId: home(), role: 'caster', name: 'Fenna' })
  // What she was let in with before is over with that.
  expect((await fromNetwork('GET', '/api/bench', undefined, { cookie: there })).status).toBe(401)
  const none = await fromNetwork('POST', '/api/me/place', { workshopId: third }, { cookie: cookieOf(back) })
  expect(await codeOf(none)).toEqual([410, 'no_workshop'])
})

it('from the network a write names its page, and the server is asked by the name it is shared under', async () => {
  const { cookie } = await letIn('Cleo', 'caster')
  const bare = await fetch(`${suite.server.address}/api/settling`, {
    method: 'POST',
    headers: { 'x-ripples-network': '1', cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), what: 'filled', atMs: Date.now(), who: '' }),
  })
  expect(await codeOf(bare)).toEqual([403, 'foreign_origin'])
  const { port } = new URL(suite.server.address)
  const strange = await fetch(`http://localhost:${port}/api/health`, {
    headers: { 'x-ripples-network': '1' },
  })
  expect(strange.status).toBe(421)
})
