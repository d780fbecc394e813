<script setup lang="ts">
import { Button, Select } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, defineAsyncComponent } from 'vue'
import type { FieldView, ObjectView } from '@/api/client'
import { figuresOf, type Chart } from '@/api/figures'
import { pointsOf } from '@/charts/option'
import type { ListState } from './list'
import { addable, canGroup, inTime } from './figures'

/** The records of a list, counted or added up by one of their fields, and drawn. */
const props = defineProps<{ object: ObjectView; list: ListState; chart: Chart }>()
const emit = defineEmits<{ change: [chart: Chart | undefined]; chosen: [filter: string] }>()

const DrawnChart = defineAsyncComponent(() => import('@/charts/DrawnChart.vue'))
const by = computed(() => props.object.fields.find((field) => field.name === props.chart.by))
const label = (fields: FieldView[]) => fields.map((one) => ({ value: one.name, label: one.label }))
const groupings = computed(() => label(props.object.fields.filter(canGroup)))
const sums = computed(() => [
  { value: '', label: 'count of records' },
  ...props.object.fields.filter(addable).map((one) => ({ value: one.name, label: `sum of ${one.label}` })),
])
const KINDS = [
  { value: 'BAR', label: 'Bars' },
  { value: 'LINE', label: 'Line' },
  { value: 'RING', label: 'Ring' },
]
const STEPS = ['DAY', 'WEEK', 'MONTH', 'QUARTER', 'YEAR'].map((value) => ({
  value,
  label: `by ${value.toLowerCase()}`,
}))

const figures = useQuery({
  queryKey: computed(() => ['figures', props.object.name, props.list, props.chart]),
  queryFn: () =>
    figuresOf(props.object.name, {
      filter: props.list.filter,
      search: props.list.search,
      retired: props.list.retired,
      by: props.chart.by,
      step: props.chart.step?.toLowerCase(),
      of: props.chart.sum,
    }),
  retry: false,
})
const points = computed(() => (figures.data.value ? pointsOf(figures.data.value, props.chart, by.value) : []))
const title = computed(() => {
  const of = props.object.fields.find((field) => field.name === props.chart.sum)
  return `${of ? of.label : props.object.plural} by ${by.value?.label.toLowerCase() ?? props.chart.by}`
})
function group(name: string) {
  const field = props.object.fields.find((one) => one.name === name)
  emit('change', { ...props.chart, by: name, step: field && inTime(field) ? 'MONTH' : undefined })
}
</script>

<template>
  <section class="card chart">
    <div class="row wrap">
      <strong>{{ title }}</strong>
      <span class="spacer"></span>
      <Select
        :value="chart.kind"
        :options="KINDS"
        size="small"
        style="width: 82px"
        aria-label="Kind of chart"
        @change="(now) => emit('change', { ...chart, kind: now as Chart['kind'] })"
      />
      <Select
        :value="chart.sum ?? ''"
        :options="sums"
        size="small"
        style="width: 160px"
        aria-label="What is drawn"
        @change="(now) => emit('change', { ...chart, sum: String(now) || undefined })"
      />
      <Select
        :value="chart.by"
        :options="groupings"
        size="small"
        show-search
        option-filter-prop="label"
        style="width: 150px"
        aria-label="Grouped by"
        @change="(now) => group(String(now))"
      />
      <Select
        v-if="by && inTime(by)"
        :value="chart.step ?? 'MONTH'"
        :options="STEPS"
        size="small"
        style="width: 110px"
        aria-label="Step of time"
        @change="(now) => emit('change', { ...chart, step: now as Chart['step'] })"
      />
      <Button size="small" type="text" @click="emit('change', undefined)">Hide</Button>
    </div>
    <p v-if="figures.error.value" class="bad" role="alert">{{ figures.error.value.message }}</p>
    <p v-else-if="figures.data.value && !points.length" class="quiet">No record to draw.</p>
    <DrawnChart v-else-if="points.length" :points="points" :kind="chart.kind" :title="title" />
    <p v-if="figures.data.value?.more" class="quiet">There are more groups than can be drawn.</p>
  </section>
</template>

<style scoped>
.chart {
  margin-bottom: 12px;
}
.wrap {
  flex-wrap: wrap;
}
</style>
