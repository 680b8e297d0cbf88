import { cssColour } from './cssColour'

/** What charts share: the theme’s ink, a size that can be read on a phone, a key underneath. */
const FONT = { size: 14 }

/** An axis with the words of what stands on it. Call it again when the theme has changed. */
export const chartAxis = (text?: string) => ({
  ticks: { color: cssColour('--ink-soft'), font: FONT },
  grid: { color: cssColour('--rule'), lineWidth: 0.5 },
  title: {
    display: text !== undefined,
    text: text ?? '',
    color: cssColour('--ink-soft'),
    font: FONT,
  },
})

/** Sharp, at once, with its key underneath; lines without a name are not in it. */
export const chartFrame = () => ({
  animation: false as const,
  maintainAspectRatio: false,
  plugins: {
    legend: {
      position: 'bottom' as const,
      labels: {
        color: cssColour('--ink'),
        font: FONT,
        usePointStyle: true,
        filter: (item: { text: string }) => item.text !== '',
      },
    },
  },
})
