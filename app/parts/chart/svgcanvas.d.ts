/** The package has no types of its own: what is used of it. */
declare module 'svgcanvas' {
  export class Element {
    constructor(options: { width: number; height: number })
    getContext(kind: '2d'): { getSerializedSvg(fixNamedEntities: boolean): string }
  }
}
