import { z } from 'zod'
import { readPhoto } from '../../services/photos'
import { useAsker } from '../../utils/asker'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readQuery } from '../../utils/http'

const querySchema = z.object({ size: z.enum(['full', 'thumb']).default('full') })

export default defineRoute(async (event) => {
  const { size } = readQuery(event, querySchema)
  const id = readId(event)
  const jpeg = await readPhoto((await useWorkshop(event)).db, id, size)
  // A photo never changes under its id; where people share a device it is asked each time whether one may see it.
  const isOwn = useAsker(event).at === 'machine'
  const etag = `"${id} ${size}"`
  setResponseHeaders(event, {
    'content-type': 'image/jpeg',
    'cache-control': isOwn ? 'private, max-age=31536000, immutable' : 'private, no-cache',
    etag,
  })
  if (getRequestHeader(event, 'if-none-match') !== etag) return jpeg
  setResponseStatus(event, 304)
  return null
})
