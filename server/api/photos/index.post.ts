import { MAX_PHOTO_BYTES } from '../../../shared/limits'
import { newPhotoSchema } from '../../../shared/photos'
import { addPhoto } from '../../services/photos'
import { useWorkshop } from '../../utils/database'
import { pictureGate } from '../../utils/gate'
import { defineRoute, readPicture, readQuery } from '../../utils/http'

export default defineRoute(async (event) => {
  const { id, caption, ...owner } = readQuery(event, newPhotoSchema)
  const { db } = await useWorkshop(event)
  return pictureGate.pass(async () =>
    addPhoto(db, owner, id, caption, await readPicture(event, MAX_PHOTO_BYTES)),
  )
})
