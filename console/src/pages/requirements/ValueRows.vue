<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Select } from 'ant-design-vue'
import { computed } from 'vue'
import { parse, stringify } from 'yaml'
import type { FieldView, PartView } from '@/api/client'
import YesNo from '@/components/YesNo.vue'
import TypedInput from '@/components/TypedInput.vue'
import type { Given, GivenValues } from '@/editor/requirementFile'

/** Fields of a record with values, each entered as its type is; line items are rows of their own. */
const props = defineProps<{
  fields: FieldView[]
  parts?: PartView[]
  label: string
  readOnly?: boolean
}>()
const values = defineModel<GivenValues>({ required: true })

const fieldOf = (name: string) => props.fields.find((one) => one.name === name)
const partOf = (name: string) => props.parts?.find((one) => one.name === name)
const free = computed(() =>
  [...props.fields, ...(props.parts ?? [])]
    .filter((one) => !(one.name in values.value))
    .map((one) => ({ value: one.name, label: one.label, title: one.name })),
)
const set = (name: string, now: Given) => (values.value = { ...values.value, [name]: now })
function remove(name: string) {
  const rest = { ...values.value }
  delete rest[name]
  values.value = rest
}
function add(name: string) {
  const field = fieldOf(name)
  set(name, partOf(name) ? [{}] : field?.type === 'boolean' ? true : '')
}

/** Simple values stand as they are, others as they would in the file. */
const shown = (value: Given) =>
  value === null
    ? ''
    : typeof value === 'object'
      ? stringify(value, { collectionStyle: 'flow', lineWidth: 0 }).trim()
      : String(value)
const NUMBERS = ['integer', 'decimal', 'percent', 'amount']
function typed(name: string, text: string) {
  const field = fieldOf(name)
  const isNumber = !!field && NUMBERS.includes(field.type) && /^-?\d+(\.\d+)?$/.test(text.trim())
  if (isNumber) set(name, Number(text))
  else if (/^[[{]/.test(text.trim())) {
    try {
      set(name, parse(text) as Given)
    } catch {
      set(name, text)
    }
  } else set(name, text.trim() === '' ? null : text)
}
const items = (name: string) => (Array.isArray(values.value[name]) ? values.value[name] : []) as GivenValues[]
const inputType = (field: FieldView | undefined) =>
  field?.type === 'date' ? 'date' : field?.type === 'time' ? 'time' : 'text'
</script>

<template>
  <div class="rows">
    <template v-for="(value, name) in values" :key="name">
      <span class="name" :title="String(name)">{{
        fieldOf(String(name))?.label ?? partOf(String(name))?.label ?? name
      }}</span>
      <div v-if="partOf(String(name))" class="items">
        <div v-for="(item, at) in items(String(name))" :key="at" class="item">
          <ValueRows
            :model-value="item"
            :fields="partOf(String(name))!.fields"
            :label="`Line ${at + 1} of ${name}`"
            :read-only="readOnly"
            @update:model-value="
              (now: GivenValues) =>
                set(
                  String(name),
                  items(String(name)).map((one, place) => (place === at ? now : one)),
                )
            "
          />
          <Button
            v-if="!readOnly"
            size="small"
            type="text"
            :aria-label="`Take away line ${at + 1} of ${name}`"
            @click="
              set(
                String(name),
                items(String(name)).filter((_, place) => place !== at),
              )
            "
            ><DeleteOutlined
          /></Button>
        </div>
        <Button
          v-if="!readOnly"
          size="small"
          type="text"
          @click="set(String(name), [...items(String(name)), {}])"
          ><PlusOutlined /> Line</Button
        >
      </div>
      <Select
        v-else-if="fieldOf(String(name))?.type === 'choice' && !fieldOf(String(name))!.lookup"
        :value="shown(value) || undefined"
        :options="fieldOf(String(name))!.choices.map((one) => ({ value: one.code, label: one.label }))"
        :disabled="readOnly"
        size="small"
        show-search
        :aria-label="`${label}: ${name}`"
        @change="(now) => set(String(name), String(now))"
      />
      <YesNo
        v-else-if="fieldOf(String(name))?.type === 'boolean'"
        :value="value === true"
        :disabled="readOnly"
        :label="`${label}: ${name}`"
        @update="(now) => set(String(name), now)"
      />
      <TypedInput
        v-else
        :type="inputType(fieldOf(String(name)))"
        :value="shown(value)"
        :disabled="readOnly"
        :aria-label="`${label}: ${name}`"
        placeholder="empty"
        @change="(event: Event) => typed(String(name), (event.target as HTMLInputElement).value)"
      />
      <Button
        v-if="!readOnly"
        size="small"
        type="text"
        :aria-label="`Take away ${name}`"
        @click="remove(String(name))"
        ><DeleteOutlined
      /></Button>
      <span v-else></span>
    </template>
    <Select
      v-if="!readOnly && free.length"
      :key="free.length"
      :value="undefined"
      :options="free"
      show-search
      option-filter-prop="label"
      size="small"
      placeholder="a field …"
      class="adding"
      :aria-label="`${label}: add a field`"
      @change="(now) => add(String(now))"
    />
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: minmax(90px, 150px) minmax(0, 240px) auto;
  gap: 4px 8px;
  align-items: center;
  justify-content: start;
}
.name {
  color: var(--quiet);
  font-size: 12.5px;
}
.items {
  grid-column: 2 / -1;
  display: grid;
  gap: 4px;
}
.items + :deep(.ant-btn) {
  grid-column: 3;
}
.item {
  display: flex;
  align-items: start;
  background: var(--sunken);
  border-radius: 6px;
  padding: 4px;
}
.adding {
  width: 150px;
}
</style>
