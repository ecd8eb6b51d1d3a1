import type { Find } from './finds'

/** Where a print lies: kept in its workshop, and out of what leaves it unless that is wished. */

type Found = { find?: Find | null | undefined }

/** Whether it says where a print lies, in words or by numbers. */
export const saysWhere = ({ find }: Found): boolean => !!find && (find.place !== '' || find.position !== null)
/** A mould without where its print lies. */
export const placeless = <T extends Found>(mould: T): T =>
  mould.find ? { ...mould, find: { ...mould.find, place: '', position: null } } : mould
/** A file that says nothing of where a print lies leaves what is known of it here as it is. */
export function placedAs<T extends Found>(mould: T, here: Found): T {
  if (!mould.find || !here.find || saysWhere(mould)) return mould
  const { place, position } = here.find
  return { ...mould, find: { ...mould.find, place, position } }
}
