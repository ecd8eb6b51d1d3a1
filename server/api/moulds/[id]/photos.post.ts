import { randomUUID } from 'node:crypto'
import { photoCaptionSchema } from '../../../../shared/moulds'
import { MAX_PHOTO_BYTES, addPhoto } from '../../../services/mouldPhotos'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId, readPicture, readQuery } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { caption } = readQuery(event, photoCaptionSchema)
  return addPhoto(useDatabase(), id, randomUUID(), caption, await readPicture(event, MAX_PHOTO_BYTES))
})
