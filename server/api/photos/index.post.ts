import pLimit from 'p-limit'
import { MAX_PHOTO_BYTES } from '../../../shared/limits'
import { newPhotoSchema } from '../../../shared/photos'
import { addPhoto } from '../../services/photos'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readPicture, readQuery } from '../../utils/http'

/** Pictures are large, unpacked more so: the bodies of others wait unread. */
const picturesAtOnce = pLimit(2)

export default defineRoute(async (event) => {
  const { id, caption, ...owner } = readQuery(event, newPhotoSchema)
  const { db } = await useWorkshop(event)
  return picturesAtOnce(async () =>
    addPhoto(db, owner, id, caption, await readPicture(event, MAX_PHOTO_BYTES)),
  )
})
