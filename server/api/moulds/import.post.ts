import { inLine } from '../../services/bundle/jobs'
import { MouldImport } from '../../services/shelf/mouldBundle'
import { useWorkshop } from '../../utils/database'
import { defineRoute, requireJson } from '../../utils/http'
import { itemsOfShelfFile, spooled } from '../../utils/shelfFile'

/** A shelf's file, photos and all: looked through first, then put on the shelf mould by mould. */
export default defineRoute(async (event) => {
  requireJson(event)
  const { db } = await useWorkshop(event)
  const shelf = new MouldImport(db)
  return inLine(() =>
    spooled(
      event.node.req,
      async (through) => {
        for await (const item of itemsOfShelfFile(through)) shelf.expect(item)
        await shelf.checkSets()
      },
      async (again) => {
        for await (const item of itemsOfShelfFile(again)) {
          if (item.list === 'moulds') await shelf.addMould(item.value)
          else await shelf.addSet(item.value)
        }
        return shelf.outcome
      },
    ),
  )
})
