export * from './table'
export * from './order'
export * from './record'
