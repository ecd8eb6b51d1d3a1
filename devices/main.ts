/**
 * Runs the demo's stand-ins: two scales, a thermometer and a button, which connect as real ones would.
 * Usage: tsx devices/main.ts DEVICE_PORT STEER_PORT
 */
import { DEMO_PIECE } from './probeModel'
import { buttonStandIn, probeStandIn, scaleStandIn } from './standIns'
import { steerOn } from './steer'
import { BENCH_SCALE } from './scaleModel'

const [devicePort, steerPort] = process.argv.slice(2, 4).map(Number)
if (!devicePort || !steerPort) {
  console.error('usage: tsx devices/main.ts DEVICE_PORT STEER_PORT')
  process.exit(2)
}
const standIns = [
  scaleStandIn(devicePort, 'shed-scale', 'Bench scale'),
  scaleStandIn(devicePort, 'shed-floor-scale', 'Floor scale', {
    ...BENCH_SCALE,
    divisionG: 10,
    capacityG: 30_000,
    noiseG: 2,
  }),
  probeStandIn(devicePort, 'shed-thermometer', 'Thermometer', 2, 18),
  buttonStandIn(devicePort, 'shed-button', 'Elbow button'),
]
// As the demo has it: a hand piece that was poured some twenty minutes ago.
standIns[2]!.act({ do: 'into_plaster', channel: 1, ...DEMO_PIECE })
const server = await steerOn(steerPort, standIns)
console.log(`stand-ins: http://127.0.0.1:${steerPort}`)
const stop = () => {
  standIns.forEach((s) => s.stop())
  server.close()
  server.closeAllConnections()
}
process.once('SIGTERM', stop)
process.once('SIGINT', stop)
