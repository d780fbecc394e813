<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import type { PartView } from '@/api/client'
import type { Flags, PickPlace } from '@/api/logic'
import type { Values } from '@/api/records'
import FieldInput from '@/components/FieldInput.vue'
import { newItem } from './form'

const props = defineProps<{
  part: PartView
  items: Values[]
  titles: Record<string, string>[]
  messages: Record<string, string>
  disabled: boolean
  flags: Record<string, Flags>
  place: Omit<PickPlace, 'field'>
  /** Where a stored file of a line item is downloaded. */
  file?: (line: number, field: string) => string
}>()
const emit = defineEmits<{ update: [items: Values[]] }>()

const message = (row: number, field: string) => props.messages[`${props.part.name}/${row}/${field}`]
function set(row: number, field: string, value: Values[string]) {
  emit(
    'update',
    props.items.map((item, at) => (at === row ? { ...item, [field]: value } : item)),
  )
}
const flagsOf = (row: number, field: string) => props.flags[`${props.part.name}.${row}.${field}`]
const titleOf = (item: Values, field: string) =>
  typeof item.line === 'number' ? props.titles[props.items.indexOf(item)]?.[field] : undefined
</script>

<template>
  <section class="card part">
    <h2>
      {{ part.label }} <span class="quiet">{{ items.length || '' }}</span>
    </h2>
    <table v-if="items.length">
      <thead>
        <tr>
          <th v-for="field in part.fields" :key="field.name" :class="field.type">
            {{ field.label }}<span v-if="field.required" class="star" title="Required">*</span>
          </th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(item, row) in items" :key="row">
          <td v-for="field in part.fields" :key="field.name">
            <FieldInput
              :field="field"
              :value="item[field.name]"
              :title="titleOf(item, field.name)"
              :disabled="disabled || field.readOnly || !!flagsOf(row, field.name)?.readOnly"
              :place="{ ...place, part: part.name, item: row, field: field.name }"
              :wrong="!!message(row, field.name)"
              :file="typeof item.line === 'number' ? file?.(item.line, field.name) : undefined"
              @update="(now) => set(row, field.name, now)"
            />
            <div v-if="message(row, field.name)" class="wrong" role="alert">
              {{ message(row, field.name) }}
            </div>
          </td>
          <td class="tool">
            <Button
              v-if="!disabled"
              type="text"
              size="small"
              aria-label="Remove this item"
              @click="
                emit(
                  'update',
                  items.filter((_, at) => at !== row),
                )
              "
            >
              <DeleteOutlined />
            </Button>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet">None yet.</p>
    <Button v-if="!disabled" size="small" @click="emit('update', [...items, newItem(part.fields)])">
      <PlusOutlined /> Add
    </Button>
  </section>
</template>

<style scoped>
.part {
  margin-top: 12px;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 10px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
  padding: 0 6px 4px 0;
}
th.reference {
  width: 36%;
}
td {
  padding: 3px 6px 3px 0;
  vertical-align: top;
}
.tool {
  width: 36px;
}
.star {
  color: var(--bad);
  margin-left: 2px;
}
.wrong {
  color: var(--bad);
  font-size: 12.5px;
}
</style>
