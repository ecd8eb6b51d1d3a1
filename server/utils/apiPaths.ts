import type { Right } from '../../shared/roles'

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE'

/** What asking something takes; `open`: nothing, it is said to anybody. */
export type RouteRight = Right | 'open'

/** Every path there is, and what each method of it takes; held to the files of server/api by a test. */
export const ROUTES: Record<`/api/${string}`, Partial<Record<Method, RouteRight>>> = {
  '/api/backups': { GET: 'keep' },
  '/api/backups/:id/file': { GET: 'own' },
  '/api/bags': { GET: 'look' },
  '/api/bags/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/bags/:id/spoon-tests': { POST: 'work' },
  '/api/bench': { GET: 'look' },
  '/api/bowls': { GET: 'look' },
  '/api/bowls/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/bundles': { POST: 'keep' },
  '/api/bundles/:id': { GET: 'keep', DELETE: 'keep' },
  '/api/bundles/:id/apply': { POST: 'keep' },
  '/api/bundles/:id/file': { GET: 'keep' },
  '/api/bundles/import': { POST: 'keep' },
  '/api/changes': { GET: 'look' },
  '/api/device-keys': { GET: 'keep', POST: 'keep' },
  '/api/device-keys/:id': { DELETE: 'keep' },
  '/api/devices': { GET: 'look' },
  '/api/devices/:id': { DELETE: 'keep' },
  '/api/devices/:id/tare': { POST: 'work' },
  '/api/devices/:id/use': { PUT: 'work' },
  '/api/figures': { GET: 'look' },
  '/api/health': { GET: 'open' },
  '/api/heeds': { GET: 'look' },
  '/api/held': { GET: 'keep', POST: 'open' },
  '/api/held/:id/refuse': { POST: 'keep' },
  '/api/held/:id/take': { POST: 'keep' },
  '/api/learning': { GET: 'look', PUT: 'work' },
  '/api/me': { GET: 'look', DELETE: 'look' },
  '/api/me/account': { GET: 'look' },
  '/api/me/devices': { DELETE: 'look' },
  '/api/me/devices/:id': { DELETE: 'look' },
  '/api/me/password': { PUT: 'look' },
  '/api/me/place': { POST: 'look' },
  '/api/mould-sets': { GET: 'look' },
  '/api/mould-sets/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/moulds': { GET: 'look' },
  '/api/moulds/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/moulds/export': { GET: 'look' },
  '/api/moulds/import': { POST: 'work' },
  '/api/pair': { POST: 'open' },
  '/api/people': { GET: 'keep', POST: 'keep' },
  '/api/people/:id': { PUT: 'keep', DELETE: 'keep' },
  '/api/people/:id/names': { PUT: 'keep' },
  '/api/people/:id/pairing': { POST: 'keep' },
  '/api/photos': { POST: 'work' },
  '/api/photos/:id': { GET: 'look', DELETE: 'keep' },
  '/api/places': { GET: 'look' },
  '/api/places/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/plasters': { GET: 'look' },
  '/api/plasters/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/pours': { GET: 'look', POST: 'work' },
  '/api/pours/:id': { GET: 'look' },
  '/api/pours/:id/events': { POST: 'work' },
  '/api/pours/:id/plan': { PUT: 'work' },
  '/api/pours/:id/readings': { GET: 'look', POST: 'work', DELETE: 'work' },
  '/api/pours/last': { GET: 'look' },
  '/api/pours/last-mixed': { GET: 'look' },
  '/api/recipes': { GET: 'look' },
  '/api/recipes/:id': { PUT: 'work', DELETE: 'keep' },
  '/api/sessions/:id': { DELETE: 'keep' },
  '/api/settings': { GET: 'look', PUT: 'keep' },
  '/api/settling': { GET: 'look', POST: 'work' },
  '/api/settling/:id': { DELETE: 'work' },
  '/api/sign-in': { POST: 'open' },
  '/api/spoon-tests/:id': { DELETE: 'work' },
  '/api/time': { GET: 'look' },
  '/api/upkeep': { GET: 'look' },
  '/api/workshops': { GET: 'own', POST: 'own' },
}

export const PATHS = Object.keys(ROUTES)
export const isPath = (path: string): boolean => Object.hasOwn(ROUTES, path)

/** @returns undefined where nobody has said what it takes: then it is nobody's. */
export const rightFor = (path: string, method: string): RouteRight | undefined =>
  (ROUTES as Record<string, Partial<Record<string, RouteRight>>>)[path]?.[method === 'HEAD' ? 'GET' : method]
