<script setup lang="ts">
import { Button, Table, TableSummary, TableSummaryCell, TableSummaryRow, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { ObjectView } from '@/api/client'
import { figuresOf } from '@/api/figures'
import { addressOf, type RecordView } from '@/api/records'
import { isNumeric, shown } from '@/composables/format'
import { useSmall } from '@/composables/small'
import { summedFields } from './figures'
import type { ListState } from './list'

/** The records of a list as rows, with the sums of all that the list would show below them. */
const props = defineProps<{
  object: ObjectView
  list: ListState
  /** The field the rows are in order of, with a minus before it when it falls. */
  sort?: string
  columns: string[]
  rows: RecordView[]
  loading: boolean
  /** How high the table may be, as CSS says it. */
  height: string
  /** Which rows are chosen; left out where none can be. */
  chosen?: string[]
}>()
const emit = defineEmits<{ choose: [rows: string[]]; change: [part: Partial<ListState>] }>()
const router = useRouter()
const small = useSmall()

type Name = string | number | undefined
const fieldOf = (name: Name) => props.object.fields.find((field) => field.name === name)

const shownColumns = computed(() => {
  const sorted = props.sort?.replace(/^-/, '')
  return props.columns.map((one) => {
    const field = fieldOf(one)!
    return {
      key: field.name,
      title: field.label,
      ellipsis: true,
      align: isNumeric(field) ? ('right' as const) : ('left' as const),
      sorter: !field.languages.length && field.type !== 'file',
      sortOrder:
        sorted === field.name
          ? props.sort!.startsWith('-')
            ? ('descend' as const)
            : ('ascend' as const)
          : null,
      width: field.type === 'boolean' ? 110 : undefined,
    }
  })
})

const summed = computed(() => summedFields(props.object.fields, props.columns))
const sums = useQuery({
  queryKey: computed(() => ['figures', props.object.name, 'sums', props.list, props.columns]),
  queryFn: () =>
    figuresOf(props.object.name, {
      filter: props.list.filter,
      search: props.list.search,
      retired: props.list.retired,
      of: summed.value.map((field) => field.name).join(','),
    }),
  enabled: computed(() => summed.value.length > 0 && props.rows.length > 0),
  retry: false,
})
const sumOf = (name: string) => {
  const value = sums.data.value?.sums[name]
  const field = fieldOf(name)
  return value === undefined || !field ? '' : shown(field, Number(value))
}

function onTable(_page: unknown, _filters: unknown, sorter: unknown) {
  const { columnKey, order } = sorter as { columnKey?: string; order?: 'ascend' | 'descend' }
  emit('change', { sort: order ? (order === 'descend' ? '-' : '') + columnKey : undefined })
}
const address = (record: RecordView) =>
  `/data/${props.object.name}/record/${encodeURIComponent(addressOf(props.object.key, record))}`
function cell(record: RecordView, name: Name): string {
  const field = fieldOf(name)
  return field ? shown(field, record.values[field.name]) : ''
}
const linkTitle = (record: RecordView, name: Name) => {
  const title = record.titles[String(name)]
  return typeof title === 'string' ? title : ''
}
</script>

<template>
  <Table
    :columns="shownColumns"
    :data-source="rows"
    :row-key="(record) => record.id"
    :row-selection="
      chosen && {
        selectedRowKeys: chosen,
        columnWidth: 40,
        onChange: (now: unknown[]) => emit('choose', now.map(String)),
      }
    "
    :pagination="false"
    :loading="loading"
    size="small"
    :scroll="small ? { x: columns.length * 118, y: 'calc(100dvh - 340px)' } : { y: height }"
    :custom-row="
      (record) => ({ onClick: () => router.push(address(record as RecordView)), style: 'cursor: pointer' })
    "
    @change="onTable"
  >
    <template #bodyCell="{ column: { key: part }, record }">
      <template v-if="part === object.key[0]">
        <RouterLink :to="address(record as RecordView)">
          {{ cell(record as RecordView, part) }}
        </RouterLink>
        <Tag v-if="record.retired" class="tag">retired</Tag>
      </template>
      <template v-else-if="fieldOf(part)?.type === 'choice'">
        <Tag v-if="cell(record as RecordView, part)">{{
          (fieldOf(part)?.lookup && linkTitle(record as RecordView, part)) || cell(record as RecordView, part)
        }}</Tag>
      </template>
      <template v-else>
        {{ cell(record as RecordView, part) }}
        <span v-if="fieldOf(part)?.type === 'reference'" class="quiet">{{
          linkTitle(record as RecordView, part)
        }}</span>
      </template>
    </template>
    <template v-if="summed.length && rows.length" #summary>
      <TableSummary fixed>
        <TableSummaryRow>
          <TableSummaryCell v-if="chosen" :index="0" />
          <TableSummaryCell
            v-for="(column, at) in shownColumns"
            :key="column.key"
            :index="at + (chosen ? 1 : 0)"
            :align="column.align"
          >
            <span class="sum" data-test="sum">{{ sumOf(column.key) || (at === 0 ? 'Sum' : '') }}</span>
          </TableSummaryCell>
        </TableSummaryRow>
      </TableSummary>
    </template>
    <template #emptyText>
      <div class="empty">
        <template v-if="list.search || list.filter"
          >Nothing matches.
          <Button type="link" size="small" @click="emit('change', { search: undefined, filter: undefined })"
            >Show all</Button
          ></template
        >
        <template v-else>There are no {{ object.plural.toLowerCase() }} yet. Enter the first one.</template>
      </div>
    </template>
  </Table>
</template>

<style scoped>
.sum {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}
.tag {
  margin-left: 6px;
}
</style>
