import 'uplot/dist/uPlot.min.css'
import { useElementSize } from '@vueuse/core'
import UPlot from 'uplot'
import { onBeforeUnmount, onMounted, ref, watchEffect, type Ref } from 'vue'

/** What a chart shows, without its size: lines over one quantity. */
export interface Drawing {
  options: Omit<UPlot.Options, 'width' | 'height'>
  data: UPlot.AlignedData
}
/** The page's own tones and face, as they are under this theme. */
export interface Look {
  tone: (token: string) => string
  /** ratio: device pixels a pixel, where something is drawn by hand. */
  font: (weight?: number, ratio?: number) => string
  axis: UPlot.Axis
}

const TYPE_PIXELS = 14
const LEAST_WIDTH = 40

/** The look that an element of the page stands in. */
export function lookOf(box: HTMLElement): Look {
  const style = getComputedStyle(box)
  const tone = (token: string) => style.getPropertyValue(token).trim()
  const font = (weight = 400, ratio = 1) => `${weight} ${TYPE_PIXELS * ratio}px ${style.fontFamily}`
  const grid = { stroke: tone('--rule'), width: 1 }
  return { tone, font, axis: { stroke: tone('--ink-soft'), grid, ticks: { show: false }, font: font() } }
}

/** Calls when the theme changes, as long as the component is there. */
export function onTheme(anew: () => void) {
  const themes = new MutationObserver(anew)
  const [dark, forced] = ['(prefers-color-scheme: dark)', '(forced-colors: active)'].map((query) =>
    window.matchMedia(query),
  )
  onMounted(() => {
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme', 'class'] })
    for (const scheme of [dark, forced]) scheme!.addEventListener('change', anew)
  })
  onBeforeUnmount(() => {
    themes.disconnect()
    for (const scheme of [dark, forced]) scheme!.removeEventListener('change', anew)
  })
}

/** A chart that fills the width of its box and follows what `draw` reads, the width and the theme. */
export function useChart(
  box: Readonly<Ref<HTMLElement | null>>,
  height: number,
  draw: (look: Look) => Drawing | null,
) {
  const { width } = useElementSize(box)
  const theme = ref(0)
  let chart: UPlot | null = null
  onTheme(() => (theme.value += 1))
  watchEffect(
    () => {
      void theme.value
      if (!box.value || width.value < LEAST_WIDTH) return
      const drawing = draw(lookOf(box.value))
      chart?.destroy()
      chart =
        drawing && new UPlot({ ...drawing.options, width: width.value, height }, drawing.data, box.value)
    },
    { flush: 'post' },
  )
  onBeforeUnmount(() => chart?.destroy())
}
