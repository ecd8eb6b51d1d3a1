import { mouldBundleSchema } from '../../../shared/moulds'
import { importMoulds } from '../../services/mouldBundle'
import { useDatabase } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

/** A shelf's file carries its photos. */
const MAX_BUNDLE_BYTES = 128 * 1024 * 1024

export default defineRoute(async (event) =>
  importMoulds(useDatabase(), await readJson(event, mouldBundleSchema, MAX_BUNDLE_BYTES)),
)
