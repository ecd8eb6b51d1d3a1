export { profileFromCsv, profileFromSvg, profileToCsv, profileToSvg, svgPathOf } from './profileFile'
export type { ProfileFileError, ProfileImport } from './profileFile'
