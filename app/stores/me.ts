import { computed } from 'vue'
import type { Me } from '~~/shared/people'
import { RIGHTS_OF, type Right } from '~~/shared/roles'
import { callApi } from './api'
import { placeOf, useKept } from './kept'
import { chosenNow, isLetIn, placed } from './place'

type OnNetwork = Extract<Me, { at: 'network' }>

/** Who is on this device, as the server said when it was last asked: known without a connection, too. */
const NAME = 'nine-ripples.me'
const kept = useKept<OnNetwork | null>(NAME, null, {
  serializer: { read: (text) => JSON.parse(text) as OnNetwork | null, write: (me) => JSON.stringify(me) },
})

/** On a device that was let in, who is on it; undefined at the machine itself, whose windows say themselves who works there. */
export const me = computed(() => (isLetIn ? (kept.value ?? undefined) : undefined))

/** Who has just been let in on this browser: for the window that comes next, which then knows from its first moment. */
export function welcome(now: Me): void {
  placeOf('localStorage').setItem(placed(NAME, chosenNow()), JSON.stringify(now))
}

/** @returns whether it could be had. */
export async function loadMe(): Promise<boolean> {
  if (!isLetIn) return true
  const answer = await callApi<Me>('/api/me')
  if (answer.ok && answer.value.at === 'network') kept.value = answer.value
  return answer.ok
}

/** Whoever sits at the machine may do all of it. Until it is known who is here nothing that is recorded is turned away. */
export const may = (right: Right): boolean =>
  !isLetIn || (me.value ? RIGHTS_OF[me.value.role].includes(right) : right === 'look' || right === 'work')
