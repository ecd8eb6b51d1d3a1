import { upkeepNext, type UpkeepNext } from '../../finish'
import type { PourFacts } from '../facts'

/** What the piece of this pour wants next, once it is in use; undefined for one that is not kept up. */
export function upkeepOf({ plan, live }: Pick<PourFacts, 'plan' | 'live'>): UpkeepNext | undefined {
  return upkeepNext(
    (plan.mould.members ?? []).map((m) => m.purpose),
    live.flatMap(({ body, occurredAtMs }) =>
      body.type === 'kept_up' ? [{ what: body.what, atMs: occurredAtMs }] : [],
    ),
  )
}
