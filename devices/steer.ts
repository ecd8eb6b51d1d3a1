import { createServer, type Server } from 'node:http'
import { once } from 'node:events'
import { actSchema, type Act, type StandIn } from './standIns'

const MOST_BODY_BYTES = 10_000

/** The page that steers the stand-ins, on the loopback: what a hand would do at real ones. */
export async function steerOn(port: number, standIns: readonly StandIn[]): Promise<Server> {
  const server = createServer((request, answer) => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '')
    if (host !== '127.0.0.1' && host !== 'localhost') {
      answer.writeHead(421).end()
      return
    }
    if (request.method === 'GET' && request.url === '/') {
      answer.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(page(standIns))
      return
    }
    if (request.method === 'GET' && request.url === '/shows') {
      answer
        .writeHead(200, { 'content-type': 'application/json' })
        .end(JSON.stringify(Object.fromEntries(standIns.map((s) => [s.id, s.shows()]))))
      return
    }
    const standIn = standIns.find((s) => request.url === `/act/${s.id}`)
    if (request.method !== 'POST' || !standIn) {
      answer.writeHead(404).end()
      return
    }
    // A page of another site may send a plain form, but neither this type nor this origin.
    const { origin, 'content-type': type = '' } = request.headers
    const isForeign = origin !== undefined && origin !== `http://${request.headers.host}`
    if (isForeign || !/^application\/json\s*(;|$)/i.test(type)) {
      answer.writeHead(403).end()
      return
    }
    let text = ''
    request.setEncoding('utf8')
    request.on('data', (chunk: string) => {
      text += chunk
      if (text.length > MOST_BODY_BYTES) request.destroy()
    })
    request.on('end', () => {
      const act = readAct(text)
      if (act) standIn.act(act)
      answer.writeHead(act ? 204 : 400).end()
    })
  })
  server.listen(port, '127.0.0.1')
  await once(server, 'listening')
  return server
}

function readAct(text: string): Act | undefined {
  try {
    return actSchema.parse(JSON.parse(text))
  } catch {
    return undefined
  }
}

const BUTTONS: Record<StandIn['kind'], readonly (readonly [label: string, act: Act])[]> = {
  scale: [
    ['A bowl of 236 g', { do: 'add', massG: 236 }],
    ['A splash, 50 g', { do: 'add', massG: 50, overS: 1 }],
    ['Pour in 500 g', { do: 'add', massG: 500, overS: 4 }],
    ['A scoop, 120 g', { do: 'add', massG: 120, overS: 1.5 }],
    ['Trickle, 20 g', { do: 'add', massG: 20, overS: 10 }],
    ['Take out 10 g', { do: 'add', massG: -10, overS: 1 }],
    ['All off', { do: 'clear' }],
    ['Zero', { do: 'tare' }],
    ['Draught', { do: 'draught', on: true }],
    ['No draught', { do: 'draught', on: false }],
  ],
  probe: [
    [
      '1 into pottery plaster',
      { do: 'into_plaster', channel: 1, classId: 'pottery', consistency: 70, tempC: 20 },
    ],
    ['2 into gypsum cement', { do: 'into_plaster', channel: 2, classId: 'gc', consistency: 45, tempC: 20 }],
    ['Out of all', { do: 'clear' }],
    ['Break 1', { do: 'kill_channel', channel: 1, dead: true }],
    ['Mend 1', { do: 'kill_channel', channel: 1, dead: false }],
  ],
  button: [['Press', { do: 'press' }]],
}
const PLUG: readonly (readonly [label: string, act: Act])[] = [
  ['Pull the plug', { do: 'pull' }],
  ['Plug in', { do: 'plug_in' }],
]

function page(standIns: readonly StandIn[]): string {
  const boxes = standIns.map((s) => {
    const buttons = [...BUTTONS[s.kind], ...PLUG].map(
      ([label, act]) => `<button data-id="${s.id}" data-act='${JSON.stringify(act)}'>${label}</button>`,
    )
    return `<section><h2>${s.name}</h2><output data-of="${s.id}"></output><p>${buttons.join(' ')}</p></section>`
  })
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Stand-ins</title>
<meta name="viewport" content="width=device-width">
<style>
body { font: 1.1rem sans-serif; margin: 1.5rem; max-width: 60rem; background: #f2ede6; color: #13262c }
section { background: #fdfcf7; border-radius: 1rem; padding: 1rem 1.5rem; margin-bottom: 1rem }
output { font-size: 2.4rem; font-weight: 700; font-variant-numeric: tabular-nums }
button { margin: 0 0 0.4rem; font: inherit; min-height: 44px; padding: 0 1rem; border: 2px solid #cfc6b4; border-radius: 2rem; background: #fff }
</style>
<h1>Stand-ins</h1><p>Devices that are not there: what you do here, a hand would do at the real thing.</p>
${boxes.join('\n')}
<script>
addEventListener('click', (e) => {
  const { id, act } = e.target.dataset
  if (act) fetch('/act/' + id, { method: 'POST', headers: { 'content-type': 'application/json' }, body: act })
})
setInterval(async () => {
  const shows = await (await fetch('/shows')).json()
  for (const o of document.querySelectorAll('output')) o.textContent = shows[o.dataset.of]
}, 300)
</script></html>`
}
