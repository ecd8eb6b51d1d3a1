export { profileFromCsv, profileFromSvg, profileToCsv, profileToSvg, svgPathOf } from './profileFile'
export type { ProfileFileError, ProfileImport } from './profileFile'
export { mouldsFromCsv, mouldsToCsv } from './mouldTable'
export type { MouldTableFault, MouldTableProblem, MouldTableRow } from './mouldTable'
