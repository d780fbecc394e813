<script setup lang="ts">
import { PlusOutlined, SearchOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Input, Select, message as toast } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { ObjectFunctionView } from '@/api/client'
import { addressOf, findRecords, type RecordView } from '@/api/records'
import CallFunction from '@/components/CallFunction.vue'
import LoadState from '@/components/LoadState.vue'
import { count, moment } from '@/composables/format'
import { useLatest } from '@/composables/latest'
import { useModel } from '@/composables/model'
import { useSession } from '@/composables/session'
import ConditionInput from '@/conditions/ConditionInput.vue'
import { columnsOf } from './columns'
import { download, recordsCsv } from './dataFile'
import FigureChart from './FigureChart.vue'
import { firstChart, summedFields } from './figures'
import ImportDialog from './ImportDialog.vue'
import { readChart, readList, writeChart, writeList, type ListState } from './list'
import RecordsTable from './RecordsTable.vue'
import ViewMenu from './ViewMenu.vue'

const { may } = useSession()
const props = defineProps<{ object?: string }>()
const route = useRoute()
const router = useRouter()
const { objects, isLoading, error } = useModel()

const name = computed(() => props.object ?? objects.value[0]?.name)
const subject = computed(() => objects.value.find((one) => one.name === name.value))
const list = computed(() => readList(route.query))
/** As chosen, or as the object's list is laid out. */
const sort = computed(() => list.value.sort ?? subject.value?.layout.sort ?? undefined)
/** Which records are meant, in which order. */
const asked = computed(() => ({
  search: list.value.search,
  filter: list.value.filter,
  retired: list.value.retired,
  sort: sort.value,
}))
const searchText = ref('')
const rows = ref<RecordView[]>([])
const next = ref<string | null>(null)
const total = ref<number | null>(null)

const filterOpen = ref(false)
const chart = computed(() => readChart(list.value.chart))
const chosen = ref<string[]>([])
/** Keys of all records that the list would show, when more are meant than are on the page. */
const allKeys = ref<string[]>()
const gathering = ref(false)
async function chooseAll() {
  gathering.value = true
  try {
    allKeys.value = (await everyRecord()).map((row) => addressOf(subject.value!.key, row))
  } catch (wrong) {
    void toast.error((wrong as Error).message)
  } finally {
    gathering.value = false
  }
}
function choose(now: string[]) {
  chosen.value = now
  allKeys.value = undefined
}
const calling = ref<ObjectFunctionView>()
const callable = computed(() => {
  const of = subject.value
  if (!of?.actions.includes('EDIT')) return []
  return of.functions.filter((one) => one.external && (one.onRecord || chosen.value.length === 0))
})
const keys = computed(() =>
  !calling.value?.onRecord
    ? []
    : (allKeys.value ??
      rows.value
        .filter((row) => chosen.value.includes(row.id))
        .map((row) => addressOf(subject.value!.key, row))),
)
const offered = computed(() => callable.value.filter((one) => one.onRecord === chosen.value.length > 0))

const {
  data: page,
  error: problem,
  loading,
  run,
} = useLatest((after: string | undefined) =>
  findRecords(name.value!, {
    ...asked.value,
    limit: 50,
    count: after === undefined,
    after,
  }).then((found) => ({ found, after })),
)

/** A filter is used a moment after it was last changed; another list has nothing of it. */
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  [() => subject.value?.name, list, sort],
  () => {
    clearTimeout(timer)
    filterOpen.value ||= !!list.value.filter
    searchText.value = list.value.search ?? ''
    choose([])
    if (subject.value) void run(undefined)
  },
  { immediate: true },
)
watch(page, (now) => {
  if (!now) return
  rows.value = now.after ? [...rows.value, ...now.found.records] : now.found.records
  next.value = now.found.next
  if (now.found.total !== null) total.value = now.found.total
})

const PAUSE = 400
const importing = ref(false)
const exporting = ref(false)
/** All records that the list would show, page by page. */
async function everyRecord() {
  const all: RecordView[] = []
  let after: string | undefined
  do {
    const found = await findRecords(name.value!, { ...asked.value, limit: 500, after })
    all.push(...found.records)
    after = found.next ?? undefined
  } while (after)
  return all
}
/** Writes them with their fields as columns. */
async function exportAll() {
  exporting.value = true
  try {
    const all = await everyRecord()
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

const columnNames = computed(() => (subject.value ? columnsOf(subject.value, list.value.columns) : []))
/** What is open above the table takes its room; some of it always stays. */
const tableHeight = computed(() => {
  const summed = summedFields(subject.value?.fields ?? [], columnNames.value).length > 0
  const above = 235 + (filterOpen.value ? 115 : 0) + (chart.value ? 300 : 0) + (summed ? 40 : 0)
  return `max(250px, calc(100vh - ${above}px))`
})
const selects = computed(
  () =>
    !!subject.value?.actions.includes('EDIT') &&
    subject.value.functions.some((one) => one.external && one.onRecord),
)
const show = (now: ListState) => void router.replace({ path: `/data/${name.value}`, query: writeList(now) })
function later(filter: string) {
  clearTimeout(timer)
  timer = setTimeout(() => change({ filter: filter.trim() || undefined }), PAUSE)
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
          <span class="quiet" data-test="total">{{ total === null ? '' : `${count(total)} records` }}</span>
          <div class="spacer"></div>
          <template v-if="chosen.length">
            <a
              v-if="!allKeys && chosen.length === rows.length && total !== null && total > rows.length"
              href="#"
              @click.prevent="chooseAll"
              >{{ gathering ? 'Choosing …' : `Choose all ${count(total)}` }}</a
            >
            <span class="quiet" data-test="chosen"
              >{{ (allKeys?.length ?? chosen.length).toLocaleString('en') }} chosen:</span
            >
          </template>
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
          <Button :class="{ on: !!list.filter }" @click="filterOpen = !filterOpen"
            >Filter{{ list.filter ? ' on' : '' }}</Button
          >
          <Select
            :value="columnNames"
            mode="multiple"
            :options="subject.fields.map((field) => ({ value: field.name, label: field.label }))"
            :max-tag-count="0"
            :max-tag-placeholder="() => `${columnNames.length} columns`"
            option-filter-prop="label"
            style="width: 130px"
            aria-label="Columns"
            @change="(now) => change({ columns: (now as string[]).join(',') || undefined })"
          />
          <Button
            v-if="!chart && rows.length"
            @click="change({ chart: writeChart(firstChart(subject!.fields, subject!.lifecycle?.field)) })"
            >Chart</Button
          >
          <ViewMenu :object="subject.name" :list="list" @chosen="show" />
          <span class="spacer"></span>
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
        <section v-if="filterOpen" class="card filter">
          <ConditionInput
            :text="list.filter ?? ''"
            role="CONDITION"
            :objects="objects"
            :object="subject.name"
            label="Filter"
            placeholder="All records; a condition keeps the list to some."
            :unchecked="!may('design')"
            @update="later"
          />
        </section>
        <FigureChart
          v-if="chart"
          :object="subject"
          :list="list"
          :chart="chart"
          @change="(now) => change({ chart: writeChart(now) })"
        />
        <Alert v-if="problem" type="error" show-icon :message="problem.message" class="problem" />
        <RecordsTable
          :object="subject"
          :list="list"
          :sort="sort"
          :columns="columnNames"
          :rows="rows"
          :loading="loading"
          :height="tableHeight"
          :chosen="selects ? chosen : undefined"
          @choose="choose"
          @change="change"
        />
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
/* What is open above the table keeps its height; the page scrolls instead. */
.data > :deep(*) {
  flex: none;
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
.problem,
.filter {
  margin-bottom: 12px;
}
.on {
  border-color: var(--action);
  background: var(--action-soft);
}
.foot {
  display: flex;
  gap: 12px;
  align-items: center;
  padding-top: 8px;
}
</style>
