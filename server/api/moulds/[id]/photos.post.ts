import { newPhotoSchema } from '../../../../shared/moulds'
import { MAX_PHOTO_BYTES } from '../../../../shared/moulds'
import { addPhoto } from '../../../services/mouldPhotos'
import { useWorkshop } from '../../../utils/database'
import { pictureGate } from '../../../utils/gate'
import { defineRoute, readId, readPicture, readQuery } from '../../../utils/http'

export default defineRoute(async (event) => {
  const mouldId = readId(event)
  const { id, caption } = readQuery(event, newPhotoSchema)
  const { db } = await useWorkshop(event)
  return pictureGate.pass(async () =>
    addPhoto(db, mouldId, id, caption, await readPicture(event, MAX_PHOTO_BYTES)),
  )
})
