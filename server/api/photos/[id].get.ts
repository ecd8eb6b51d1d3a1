import { z } from 'zod'
import { readPhoto } from '../../services/photos'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readQuery } from '../../utils/http'

const querySchema = z.object({ size: z.enum(['full', 'thumb']).default('full') })

export default defineRoute(async (event) => {
  const { size } = readQuery(event, querySchema)
  const jpeg = await readPhoto((await useWorkshop(event)).db, readId(event), size)
  setResponseHeaders(event, {
    'content-type': 'image/jpeg',
    // A photo never changes under its id.
    'cache-control': 'private, max-age=31536000, immutable',
  })
  return jpeg
})
