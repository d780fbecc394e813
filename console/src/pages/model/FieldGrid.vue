<script setup lang="ts">
import {
  ArrowDownOutlined,
  ArrowUpOutlined,
  DeleteOutlined,
  KeyOutlined,
  PlusOutlined,
} from '@ant-design/icons-vue'
import {
  AutoComplete,
  Button,
  Checkbox,
  Input,
  InputNumber,
  Popconfirm,
  Select,
  Tooltip,
} from 'ant-design-vue'
import { nextTick, ref } from 'vue'
import {
  addField,
  DETAILS,
  moveField,
  removeField,
  renameField,
  setOnField,
  toggleKey,
  type FieldKey,
  type FieldRow,
  type Place,
} from '@/editor/objectFile'

const props = defineProps<{
  rows: FieldRow[]
  place: Place
  text: string
  objects: string[]
  released: string[]
  readOnly: boolean
}>()
const emit = defineEmits<{ update: [text: string] }>()

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
].map((value) => ({ value, label: value }))

const grid = ref<HTMLElement>()
const set = (row: FieldRow, key: FieldKey, value: unknown) =>
  emit('update', setOnField(props.text, props.place, row.name, key, value))
const has = (row: FieldRow, key: FieldKey) => DETAILS[row.type]?.includes(key) ?? false

function rename(row: FieldRow, event: Event) {
  const to = (event.target as HTMLInputElement).value.trim()
  if (to && to !== row.name)
    emit('update', renameField(props.text, props.place, row.name, to, props.released))
}

async function add() {
  const added = addField(props.text, props.place)
  emit('update', added.text)
  await nextTick()
  const field = grid.value?.querySelector<HTMLInputElement>(`input[data-field="${added.name}"]`)
  field?.focus()
  field?.select()
}
</script>

<template>
  <div ref="grid">
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
          <th class="tools"></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, at) in rows" :key="at">
          <td v-if="place.length === 1">
            <Checkbox
              :checked="row.key"
              :disabled="readOnly"
              :aria-label="`${row.name} is part of the key`"
              @change="emit('update', toggleKey(text, row.name))"
            />
          </td>
          <td>
            <input
              class="plain mono"
              :value="row.name"
              :data-field="row.name"
              :disabled="readOnly"
              aria-label="Name"
              @change="rename(row, $event)"
            />
          </td>
          <td>
            <Input
              :value="row.label"
              :disabled="readOnly"
              size="small"
              :bordered="false"
              placeholder="from the name"
              aria-label="Label"
              @update:value="(now: string) => set(row, 'label', now)"
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
            <InputNumber
              v-if="has(row, 'length')"
              :value="row.length"
              :min="1"
              :disabled="readOnly"
              size="small"
              placeholder="200"
              style="width: 100%"
              aria-label="Length"
              @change="(now) => set(row, 'length', now ?? undefined)"
            />
            <InputNumber
              v-else-if="has(row, 'scale')"
              :value="row.scale"
              :min="0"
              :max="9"
              :disabled="readOnly"
              size="small"
              placeholder="2 places"
              style="width: 100%"
              aria-label="Decimal places"
              @change="(now) => set(row, 'scale', now ?? undefined)"
            />
            <Input
              v-else-if="has(row, 'choices')"
              :value="row.choices"
              :disabled="readOnly"
              size="small"
              placeholder="low, high or a list"
              aria-label="Codes or choice list"
              @change="(event) => set(row, 'choices', (event.target as HTMLInputElement).value)"
            />
            <AutoComplete
              v-else-if="has(row, 'to')"
              :value="row.to"
              :options="objects.map((value) => ({ value }))"
              :disabled="readOnly"
              size="small"
              placeholder="to object"
              style="width: 100%"
              aria-label="Object it points to"
              @change="(now) => set(row, 'to', now)"
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
              v-if="place.length === 1"
              :checked="row.unique"
              :disabled="readOnly"
              :aria-label="`${row.name} is unique`"
              @change="set(row, 'unique', !row.unique)"
            />
          </td>
          <td>
            <Input
              v-if="row.type !== 'reference'"
              :value="row.default"
              :disabled="readOnly"
              size="small"
              :bordered="false"
              placeholder="–"
              aria-label="Default"
              @update:value="(now: string) => set(row, 'default', now)"
            />
          </td>
          <td class="tools">
            <template v-if="!readOnly">
              <Button
                type="text"
                size="small"
                aria-label="Up"
                :disabled="at === 0"
                @click="emit('update', moveField(text, place, row.name, -1))"
                ><ArrowUpOutlined
              /></Button>
              <Button
                type="text"
                size="small"
                aria-label="Down"
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
      </tbody>
    </table>
    <Button v-if="!readOnly" size="small" class="add" @click="add"><PlusOutlined /> Add field</Button>
  </div>
</template>

<style scoped>
table {
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
  width: 142px;
}
.narrow {
  width: 38px;
}
.type {
  width: 102px;
}
.detail {
  width: 98px;
}
.default {
  width: 82px;
}
.tools {
  width: 72px;
  white-space: nowrap;
  text-align: right;
}
.tools :deep(.ant-btn) {
  padding: 0 4px;
  opacity: 0.55;
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
