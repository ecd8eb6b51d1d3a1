import {
  BasicPlatform,
  Chart,
  Filler,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartItem,
  type Plugin,
} from 'chart.js'

/** Chart.js with what the charts here are made of; heavy, so only charts import it, and rooms import those when needed. */
Chart.register(
  Filler,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  ScatterController,
  Tooltip,
)
const FAMILY = '"Atkinson Hyperlegible Next Variable", sans-serif'
Chart.defaults.font.family = FAMILY
Chart.defaults.font.size = 15

/** Paper under a drawing that leaves the page. */
const ground = (colour: string): Plugin => ({
  id: 'ground',
  beforeDraw: ({ ctx, width, height }) => {
    ctx.fillStyle = colour
    ctx.fillRect(0, 0, width, height)
  },
})

/** The same chart drawn once more, as lines and letters instead of dots. @returns an SVG file. */
export async function svgOfChart(chart: Chart, colour: string): Promise<string> {
  const { Element } = await import('svgcanvas')
  const { width, height, config } = chart
  const canvas = new Element({ width, height })
  // A file has no fonts of ours with it. Drawn at once, so that no other chart sees it.
  Chart.defaults.font.family = 'Arial, Helvetica, sans-serif'
  try {
    const drawn = new Chart(
      canvas as unknown as ChartItem,
      {
        ...('type' in config ? { type: config.type } : {}),
        data: config.data,
        options: {
          ...config.options,
          responsive: false,
          animation: false,
          devicePixelRatio: 1,
          events: [],
          // Else lines are kept as the browser's own paths, which no other canvas can read.
          datasets: { scatter: { segment: {} } },
        },
        plugins: [...(config.plugins ?? []), ground(colour)],
        platform: BasicPlatform,
      } as ConstructorParameters<typeof Chart>[1],
    )
    const svg = canvas.getContext('2d').getSerializedSvg(true)
    drawn.destroy()
    return svg
  } finally {
    Chart.defaults.font.family = FAMILY
  }
}

export { Chart }
