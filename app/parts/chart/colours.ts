/** The look's colours as it is now, for what is drawn without style sheets: charts, and drawings that leave the page. */
export function lookColours() {
  const of = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
  return {
    ink: of('--ink'),
    soft: of('--ink-soft'),
    line: of('--line'),
    stone: of('--stone'),
    warm: of('--warm'),
    warmBand: of('--warm-light'),
    wet: of('--wet'),
    wetBand: of('--wet-light'),
    hot: of('--hot'),
    ground: of('--plaster'),
  }
}
