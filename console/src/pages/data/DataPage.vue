<script setup lang="ts">
import { PlusOutlined, SearchOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Input, Select, Table, Tag, message as toast } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { ObjectFunctionView } from '@/api/client'
import { addressOf, findRecords, type RecordView } from '@/api/records'
import CallFunction from '@/components/CallFunction.vue'
import LoadState from '@/components/LoadState.vue'
import { isNumeric, moment, shown } from '@/composables/format'
import { useLatest } from '@/composables/latest'
import { useModel } from '@/composables/model'
import { useSmall } from '@/composables/small'
import { download, recordsCsv } from './dataFile'
import ImportDialog from './ImportDialog.vue'
import { readList, writeList } from './list'

const small = useSmall()
const props = defineProps<{ object?: string }>()
const route = useRoute()
const router = useRouter()
const { objects, isLoading, error } = useModel()

const name = computed(() => props.object ?? objects.value[0]?.name)
const subject = computed(() => objects.value.find((one) => one.name === name.value))
const list = computed(() => readList(route.query))
const filterText = ref('')
const searchText = ref('')
const rows = ref<RecordView[]>([])
const next = ref<string | null>(null)
const total = ref<number | null>(null)

const chosen = ref<string[]>([])
const calling = ref<ObjectFunctionView>()
const callable = computed(() => {
  const of = subject.value
  if (!of?.actions.includes('EDIT')) return []
  return of.functions.filter((one) => one.external && (one.onRecord || chosen.value.length === 0))
})
const keys = computed(() =>
  calling.value?.onRecord
    ? rows.value
        .filter((row) => chosen.value.includes(row.id))
        .map((row) => addressOf(subject.value!.key, row))
    : [],
)
const offered = computed(() => callable.value.filter((one) => one.onRecord === chosen.value.length > 0))

const {
  data: page,
  error: problem,
  loading,
  run,
} = useLatest((after: string | undefined) =>
  findRecords(name.value!, {
    search: list.value.search,
    filter: list.value.filter,
    sort: list.value.sort,
    retired: list.value.retired,
    limit: 50,
    count: after === undefined,
    after,
  }).then((found) => ({ found, after })),
)

watch(
  [name, list],
  () => {
    filterText.value = list.value.filter ?? ''
    searchText.value = list.value.search ?? ''
    chosen.value = []
    if (name.value) void run(undefined)
  },
  { immediate: true },
)
watch(page, (now) => {
  if (!now) return
  rows.value = now.after ? [...rows.value, ...now.found.records] : now.found.records
  next.value = now.found.next
  if (now.found.total !== null) total.value = now.found.total
})

const importing = ref(false)
const exporting = ref(false)
/** Writes all records that the list would show, page by page, with their fields as columns. */
async function exportAll() {
  exporting.value = true
  try {
    const all: RecordView[] = []
    let after: string | undefined
    do {
      const found = await findRecords(name.value!, {
        search: list.value.search,
        filter: list.value.filter,
        sort: list.value.sort,
        retired: list.value.retired,
        limit: 500,
        after,
      })
      all.push(...found.records)
      after = found.next ?? undefined
    } while (after)
    const fields = subject.value!.fields.map((field) => field.name)
    download(`${name.value}.csv`, recordsCsv(subject.value!, fields, all))
  } catch (wrong) {
    void toast.error((wrong as Error).message)
  } finally {
    exporting.value = false
  }
}

function change(part: Partial<ReturnType<typeof readList>>) {
  void router.replace({ path: `/data/${name.value}`, query: writeList({ ...list.value, ...part }) })
}

const MOST_COLUMNS = 8
const columns = computed(() => {
  const shownFields = subject.value?.fields.filter((field) => !field.multiline) ?? []
  // What state a record is in is looked for first, so it stands beside what names the record.
  const state = shownFields.findIndex((field) => field.name === subject.value?.lifecycle?.field)
  if (state > 0) shownFields.splice(1, 0, ...shownFields.splice(state, 1))
  const fields = shownFields.slice(0, MOST_COLUMNS)
  const sorted = list.value.sort?.replace(/^-/, '')
  return fields.map((field) => ({
    key: field.name,
    title: field.label,
    ellipsis: true,
    align: isNumeric(field) ? ('right' as const) : ('left' as const),
    sorter: !field.languages.length,
    sortOrder:
      sorted === field.name
        ? list.value.sort!.startsWith('-')
          ? ('descend' as const)
          : ('ascend' as const)
        : null,
    width: field.type === 'boolean' ? 110 : undefined,
  }))
})

function onTable(_page: unknown, _filters: unknown, sorter: unknown) {
  const { columnKey, order } = sorter as { columnKey?: string; order?: 'ascend' | 'descend' }
  change({ sort: order ? (order === 'descend' ? '-' : '') + columnKey : undefined })
}
function open(record: RecordView) {
  void router.push(`/data/${name.value}/record/${encodeURIComponent(addressOf(subject.value!.key, record))}`)
}
type Name = string | number | undefined
const fieldOf = (name: Name) => subject.value?.fields.find((field) => field.name === name)
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
  <div class="page data">
    <LoadState :loading="isLoading" :error="error">
      <div v-if="!subject" class="empty">
        <p v-if="objects.length">There is no object {{ object }} in the live release.</p>
        <p v-else>Nothing is released yet. Define an object on the page Model and release it.</p>
      </div>
      <template v-else>
        <div class="page-head">
          <h1>{{ subject.plural }}</h1>
          <span class="quiet" data-test="total">{{
            total === null ? '' : `${total.toLocaleString('en')} records`
          }}</span>
          <div class="spacer"></div>
          <span v-if="chosen.length" class="quiet" data-test="chosen">{{ chosen.length }} chosen:</span>
          <Button v-for="one in offered" :key="one.name" @click="calling = one">{{ one.label }}</Button>
          <CallFunction
            v-if="calling"
            :object="subject.name"
            :definition="calling"
            :keys="keys"
            @done="run(undefined)"
            @left="calling = undefined"
          />
          <Select
            :value="subject.name"
            show-search
            :options="objects.map((one) => ({ value: one.name, label: one.plural }))"
            option-filter-prop="label"
            style="width: 190px"
            aria-label="Object"
            @change="(now) => router.push(`/data/${now}`)"
          />
          <Button v-if="rows.length" :loading="exporting" @click="exportAll">Export</Button>
          <Button v-if="subject.actions.includes('CREATE')" @click="importing = true">Import</Button>
          <Button
            v-if="subject.actions.includes('CREATE')"
            type="primary"
            @click="router.push(`/data/${subject.name}/new`)"
          >
            <PlusOutlined /> New {{ subject.label.toLowerCase() }}
          </Button>
        </div>
        <div class="tools">
          <Input
            v-model:value="searchText"
            allow-clear
            placeholder="Search in texts"
            aria-label="Search"
            style="width: 230px"
            @press-enter="change({ search: searchText || undefined })"
            @blur="searchText !== (list.search ?? '') && change({ search: searchText || undefined })"
          >
            <template #prefix><SearchOutlined class="quiet" /></template>
          </Input>
          <Input
            v-model:value="filterText"
            allow-clear
            class="mono"
            aria-label="Filter"
            :placeholder="`Filter, such as  ${subject.fields[0].name} = &quot;…&quot; and changedAt > now()`"
            style="flex: 1"
            @press-enter="change({ filter: filterText || undefined })"
          />
          <Button @click="change({ filter: filterText || undefined, search: searchText || undefined })"
            >Apply</Button
          >
          <Select
            :value="list.retired ?? 'without'"
            :options="[
              { value: 'without', label: 'In use' },
              { value: 'with', label: 'With retired' },
              { value: 'only', label: 'Retired only' },
            ]"
            style="width: 130px"
            aria-label="Retired records"
            @change="(now) => change({ retired: now === 'without' ? undefined : String(now) })"
          />
        </div>
        <Alert v-if="problem" type="error" show-icon :message="problem.message" class="problem" />
        <Table
          :columns="columns"
          :data-source="rows"
          :row-key="(record) => record.id"
          :row-selection="
            subject.actions.includes('EDIT') && subject.functions.some((one) => one.external && one.onRecord)
              ? {
                  selectedRowKeys: chosen,
                  columnWidth: 40,
                  onChange: (now: unknown[]) => (chosen = now.map(String)),
                }
              : undefined
          "
          :pagination="false"
          :loading="loading"
          size="small"
          :scroll="
            small ? { x: columns.length * 118, y: 'calc(100dvh - 340px)' } : { y: 'calc(100vh - 235px)' }
          "
          :custom-row="(record) => ({ onClick: () => open(record as RecordView), style: 'cursor: pointer' })"
          @change="onTable"
        >
          <template #bodyCell="{ column: { key: part }, record }">
            <template v-if="part === subject.key[0]">
              <RouterLink
                :to="`/data/${subject.name}/record/${encodeURIComponent(addressOf(subject.key, record as RecordView))}`"
              >
                {{ cell(record as RecordView, part) }}
              </RouterLink>
              <Tag v-if="record.retired" class="tag">retired</Tag>
            </template>
            <template v-else-if="fieldOf(part)?.type === 'choice'">
              <Tag v-if="cell(record as RecordView, part)">{{ cell(record as RecordView, part) }}</Tag>
            </template>
            <template v-else>
              {{ cell(record as RecordView, part) }}
              <span v-if="fieldOf(part)?.type === 'reference'" class="quiet">{{
                linkTitle(record as RecordView, part)
              }}</span>
            </template>
          </template>
          <template #emptyText>
            <div class="empty">
              <template v-if="list.search || list.filter"
                >Nothing matches.
                <Button type="link" size="small" @click="change({ search: undefined, filter: undefined })"
                  >Show all</Button
                ></template
              >
              <template v-else
                >There are no {{ subject.plural.toLowerCase() }} yet. Enter the first one.</template
              >
            </div>
          </template>
        </Table>
        <ImportDialog v-if="importing" :object="subject" @done="run(undefined)" @left="importing = false" />
        <div class="foot quiet">
          <Button v-if="next" size="small" :loading="loading" @click="run(next!)">Show more</Button>
          <span v-if="rows.length"
            >{{ rows.length }} shown · last change
            {{
              moment(
                rows
                  .map((row) => row.changedAt)
                  .sort()
                  .at(-1)!,
              )
            }}</span
          >
        </div>
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.data {
  display: flex;
  flex-direction: column;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 12px;
}
@media (max-width: 700px) {
  .tools > * {
    flex: 1 1 45% !important;
    width: auto !important;
  }
}
.problem {
  margin-bottom: 12px;
}
.tag {
  margin-left: 6px;
}
.foot {
  display: flex;
  gap: 12px;
  align-items: center;
  padding-top: 8px;
}
</style>
