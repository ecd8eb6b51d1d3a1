import type { Me, MyAccount, PasswordInput } from '~~/shared/people'
import { callApi, type ApiResult } from './api'
import { welcome } from './me'

/** What somebody of the network does about themselves. */

/** Whoever is let in: this window begins anew, in their place from its first moment. */
async function begun(asked: Promise<ApiResult<Me>>): Promise<ApiResult<Me>> {
  const answer = await asked
  if (!answer.ok || answer.value.at === 'machine') return answer
  welcome(answer.value)
  // What led here, a code perhaps, is not kept behind it.
  location.replace(answer.value.role === 'looker' ? '/wall' : '/')
  return answer
}

/** On a device that has read a code. */
export const pairWith = (token: string, device: string) =>
  begun(callApi<Me>('/api/pair', { method: 'POST', body: { token, device } }))
export const signIn = (body: { name: string; password: string; device: string }) =>
  begun(callApi<Me>('/api/sign-in', { method: 'POST', body }))
/** Into another workshop that one belongs to. */
export const enterPlace = (workshopId: string) =>
  begun(callApi<Me>('/api/me/place', { method: 'POST', body: { workshopId } }))

export const loadAccount = () => callApi<MyAccount>('/api/me/account')
export const savePassword = (body: PasswordInput) => callApi('/api/me/password', { method: 'PUT', body })
/** @param id one of one's own devices; all but this one where it is not given. */
export const putMyDeviceOut = (id?: string) =>
  callApi(`/api/me/devices${id === undefined ? '' : `/${id}`}`, { method: 'DELETE' })
