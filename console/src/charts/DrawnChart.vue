<script setup lang="ts">
import { BarChart, LineChart, PieChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { init, use, type ECharts, type EChartsCoreOption } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Chart } from '@/api/figures'
import { useAppearance } from '@/composables/appearance'
import { describe, optionOf } from './option'

use([
  BarChart,
  LineChart,
  PieChart,
  AriaComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  SVGRenderer,
])

/** Points drawn as bars, a line or a ring, in the page's own colours. */
const props = defineProps<{
  points: { name: string; value: number }[]
  kind: Chart['kind']
  title: string
  height?: number
}>()

const host = ref<HTMLElement>()
const { dark } = useAppearance()
let chart: ECharts | undefined

function colours() {
  const style = getComputedStyle(document.documentElement)
  const of = (name: string) => style.getPropertyValue(`--${name}`).trim()
  return {
    series: [of('action'), of('sand'), of('good'), of('bad'), '#6b7fa8', '#8f6a9a', '#7d8a4c', '#b0765a'],
    text: of('quiet'),
    line: of('line'),
  }
}
function draw() {
  chart?.setOption(optionOf(props.points, props.kind, props.title, colours()) as EChartsCoreOption, true)
}
let sizes: ResizeObserver | undefined
onMounted(() => {
  chart = init(host.value!, undefined, { renderer: 'svg' })
  draw()
  sizes = new ResizeObserver(() => chart?.resize())
  sizes.observe(host.value!)
})
onBeforeUnmount(() => {
  sizes?.disconnect()
  chart?.dispose()
})
watch([() => props.points, () => props.kind, () => props.title, dark], () => requestAnimationFrame(draw), {
  deep: true,
})
</script>

<template>
  <div
    ref="host"
    role="img"
    data-test="chart"
    :aria-label="describe(points, title)"
    :style="{ height: `${height ?? 220}px`, width: '100%' }"
  ></div>
</template>
