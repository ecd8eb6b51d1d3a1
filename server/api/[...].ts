import { defineRoute } from '../utils/http'

/** What no route answers: it takes a right that nobody has, and is said as such, never with the application's page. */
export default defineRoute(() => Promise.reject(new Error('no route')))
