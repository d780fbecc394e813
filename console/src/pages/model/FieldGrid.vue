<script setup lang="ts">
import {
  ArrowDownOutlined,
  EllipsisOutlined,
  ArrowUpOutlined,
  DeleteOutlined,
  KeyOutlined,
  PlusOutlined,
} from '@ant-design/icons-vue'
import { Button, Checkbox, Input, Popconfirm, Select, Tooltip } from 'ant-design-vue'
import { nextTick, ref } from 'vue'
import {
  addField,
  addFields,
  DETAILS,
  moveField,
  removeField,
  renameField,
  setOnField,
  setTravels,
  toggleKey,
  type FieldKey,
  type FieldRow,
  type Place,
} from '@/editor/objectFile'
import { setLabel } from '@/editor/labels'
import { fieldsOf, spoken } from '@/editor/pasted'
import DetailCell from './DetailCell.vue'
import FieldDetails from './FieldDetails.vue'
import TypedInput from '@/components/TypedInput.vue'

const props = defineProps<{
  rows: FieldRow[]
  place: Place
  text: string
  /** The object whose fields they are. */
  object: string
  objects: string[]
  /** The choice lists there are. */
  lists: string[]
  /** Codes that outside services give, as in `tide-table.gauges`. */
  lookups: string[]
  released: string[]
  /** Languages of the package, the main one first. */
  languages: string[]
  readOnly: boolean
}>()
const emit = defineEmits<{
  update: [text: string]
  list: [field: string, list: string | undefined]
  uses: [field: string]
}>()
/** The field whose further details are shown. */
const opened = ref<string>()

const TYPES = [
  'text',
  'integer',
  'decimal',
  'amount',
  'percent',
  'boolean',
  'date',
  'time',
  'date-time',
  'duration',
  'choice',
  'reference',
  'email',
  'phone',
  'web-address',
  'uuid',
  'file',
].map((value) => ({ value, label: value }))

const grid = ref<HTMLElement>()
const set = (row: FieldRow, key: FieldKey, value: unknown) =>
  emit('update', setOnField(props.text, props.place, row.name, key, value))
const label = (row: FieldRow, language: string, now: string) =>
  emit('update', setLabel(props.text, [...props.place, row.name, 'label'], language, now, props.languages[0]))
const has = (row: FieldRow, key: FieldKey) => DETAILS[row.type]?.includes(key) ?? false

function rename(row: FieldRow, event: Event) {
  const to = (event.target as HTMLInputElement).value.trim()
  if (to && to !== row.name)
    emit('update', renameField(props.text, props.place, row.name, to, props.released))
}

async function add() {
  const added = addField(props.text, props.place)
  emit('update', added.text)
  await focus(added.name)
}

async function focus(name: string) {
  await nextTick()
  const field = grid.value?.querySelector<HTMLInputElement>(`input[data-field="${name}"]`)
  field?.focus()
  field?.select()
}

/** Enter goes on to the next field, and from the last one to a new one. */
async function onEnter(at: number, event: KeyboardEvent) {
  if (props.readOnly) return
  rename(props.rows[at], event)
  await nextTick()
  if (at === props.rows.length - 1) await add()
  else await focus(props.rows[at + 1].name)
}

/** Several lines become several fields; one line is pasted as it is. */
function onPaste(event: ClipboardEvent) {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  const fresh = fieldsOf(pasted)
  if (props.readOnly || fresh.length < 2) return
  event.preventDefault()
  emit('update', addFields(props.text, props.place, fresh))
}
</script>

<template>
  <div ref="grid" class="grid" @paste="onPaste">
    <table>
      <thead>
        <tr>
          <th v-if="place.length === 1" class="narrow">
            <Tooltip title="Part of the key"><KeyOutlined /></Tooltip>
          </th>
          <th class="name">Name</th>
          <th>Label</th>
          <th class="type">Type</th>
          <th class="detail">Detail</th>
          <th class="narrow"><Tooltip title="Required">Req.</Tooltip></th>
          <th class="narrow"><Tooltip title="No two records alike">Uniq.</Tooltip></th>
          <th class="default">Default</th>
          <th class="tools"><span class="unseen">Tools</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(row, at) in rows" :key="at">
          <tr>
            <td v-if="place.length === 1">
              <Checkbox
                :checked="row.key"
                :disabled="readOnly"
                :aria-label="`${row.name} is part of the key`"
                @change="emit('update', toggleKey(text, row.name))"
              />
            </td>
            <td>
              <TypedInput
                class="plain mono"
                :value="row.name"
                :data-field="row.name"
                :disabled="readOnly"
                :aria-label="`Name of ${row.name}`"
                @change="rename(row, $event)"
                @keydown.enter.prevent="onEnter(at, $event)"
              />
            </td>
            <td>
              <Input
                :value="row.label"
                :disabled="readOnly"
                size="small"
                :bordered="false"
                :placeholder="spoken(row.name)"
                :aria-label="`Label of ${row.name}`"
                @update:value="(now: string) => label(row, languages[0], now)"
              />
            </td>
            <td>
              <Select
                :value="row.type"
                :options="TYPES"
                :disabled="readOnly"
                size="small"
                show-search
                style="width: 100%"
                :aria-label="`Type of ${row.name}`"
                @change="(now) => set(row, 'type', now)"
              />
            </td>
            <td>
              <DetailCell
                :row="row"
                :objects="objects"
                :lists="lists"
                :lookups="lookups"
                :read-only="readOnly"
                @set="(key, value) => set(row, key, value)"
                @list="(list) => emit('list', row.name, list)"
              />
            </td>
            <td>
              <Checkbox
                :checked="row.required"
                :disabled="readOnly"
                :aria-label="`${row.name} is required`"
                @change="set(row, 'required', !row.required)"
              />
            </td>
            <td>
              <Checkbox
                v-if="place.length === 1 && row.type !== 'file'"
                :checked="row.unique"
                :disabled="readOnly"
                :aria-label="`${row.name} is unique`"
                @change="set(row, 'unique', !row.unique)"
              />
            </td>
            <td>
              <Input
                v-if="!['reference', 'file'].includes(row.type)"
                :value="row.default"
                :disabled="readOnly"
                size="small"
                :bordered="false"
                placeholder="–"
                :aria-label="`Default of ${row.name}`"
                @update:value="(now: string) => set(row, 'default', now)"
              />
            </td>
            <td class="tools">
              <Button
                type="text"
                size="small"
                :aria-label="`Details of ${row.name}`"
                :aria-expanded="opened === row.name"
                @click="opened = opened === row.name ? undefined : row.name"
                ><EllipsisOutlined
              /></Button>
              <template v-if="!readOnly">
                <Button
                  type="text"
                  size="small"
                  :aria-label="`Move ${row.name} up`"
                  :disabled="at === 0"
                  @click="emit('update', moveField(text, place, row.name, -1))"
                  ><ArrowUpOutlined
                /></Button>
                <Button
                  type="text"
                  size="small"
                  :aria-label="`Move ${row.name} down`"
                  :disabled="at === rows.length - 1"
                  @click="emit('update', moveField(text, place, row.name, 1))"
                  ><ArrowDownOutlined
                /></Button>
                <Popconfirm
                  :title="
                    released.includes(row.name)
                      ? 'Remove it? Its values go with the next release, which asks again.'
                      : 'Remove this field?'
                  "
                  @confirm="emit('update', removeField(text, place, row.name))"
                >
                  <Button type="text" size="small" :aria-label="`Remove ${row.name}`"
                    ><DeleteOutlined
                  /></Button>
                </Popconfirm>
              </template>
            </td>
          </tr>
          <tr v-if="opened === row.name" class="more">
            <td :colspan="place.length === 1 ? 9 : 8">
              <FieldDetails
                :row="row"
                :read-only="readOnly"
                :has="(key) => has(row, key)"
                :languages="languages"
                :object="place.length === 1 ? object : undefined"
                @set="(key, value) => set(row, key, value)"
                @travels="(now) => emit('update', setTravels(text, place, row.name, now))"
                @label="(language, now) => label(row, language, now)"
                @uses="emit('uses', row.name)"
              />
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <p v-if="!rows.length" class="quiet">
      No fields yet. Type them in one by one, or paste several lines here: names, or columns out of a
      spreadsheet with the type in the second.
    </p>
    <Button v-if="!readOnly" size="small" class="add" @click="add"><PlusOutlined /> Add field</Button>
    <span v-if="!readOnly && rows.length" class="quiet hint"
      >Enter makes the next; several lines can be pasted.</span
    >
  </div>
</template>

<style scoped>
.grid {
  overflow-x: auto;
}
.more td {
  background: var(--sunken);
  padding: 8px 12px 12px;
}
.hint {
  margin-left: 10px;
  font-size: 12.5px;
}
table {
  min-width: 730px;
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
  font-size: 12.5px;
  padding: 2px 4px 6px;
  border-bottom: 1px solid var(--line);
}
td {
  padding: 3px 4px;
  border-bottom: 1px solid var(--line);
}
tr:hover td {
  background: var(--sunken);
}
.name {
  width: 130px;
}
.narrow {
  width: 34px;
}
.type {
  width: 100px;
}
.detail {
  width: 106px;
}
.default {
  width: 68px;
}
.tools {
  position: sticky;
  right: 0;
  background: var(--surface);
  width: 98px;
  white-space: nowrap;
  text-align: right;
}
.tools :deep(.ant-btn) {
  padding: 0;
  width: 24px;
  height: 24px;
  opacity: 0.75;
}
tr:hover .tools :deep(.ant-btn) {
  opacity: 1;
}
.plain {
  width: 100%;
  border: 1px solid transparent;
  background: none;
  color: var(--text);
  padding: 2px 4px;
  border-radius: 4px;
}
.plain:hover:not(:disabled),
.plain:focus {
  border-color: var(--line);
  background: var(--surface);
}
.add {
  margin-top: 10px;
}
</style>
