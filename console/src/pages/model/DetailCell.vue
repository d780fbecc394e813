<script setup lang="ts">
import { UnorderedListOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, InputNumber, Tooltip } from 'ant-design-vue'
import { DETAILS, type FieldKey, type FieldRow } from '@/editor/objectFile'

/** The one detail of a field that its type needs most: its length, its places, its codes, what it points to. */
const props = defineProps<{
  row: FieldRow
  objects: string[]
  lists: string[]
  lookups: string[]
  readOnly: boolean
}>()
const emit = defineEmits<{
  set: [key: FieldKey, value: unknown]
  list: [list: string | undefined]
}>()
const has = (key: FieldKey) => DETAILS[props.row.type]?.includes(key) ?? false

const LIST_NAME = /^[A-Z]\w*$/
/** The choice list a field offers, when it names one. */
const listOf = () => {
  const { choices } = props.row
  return choices && LIST_NAME.test(choices) && props.lists.includes(choices) ? choices : undefined
}
</script>

<template>
  <InputNumber
    v-if="has('length')"
    :value="row.length"
    :min="1"
    :disabled="readOnly"
    size="small"
    placeholder="200"
    style="width: 100%"
    :aria-label="`Length of ${row.name}`"
    @change="(now) => emit('set', 'length', now ?? undefined)"
  />
  <InputNumber
    v-else-if="has('scale')"
    :value="row.scale"
    :min="0"
    :max="9"
    :disabled="readOnly"
    size="small"
    placeholder="2 places"
    style="width: 100%"
    :aria-label="`Decimal places of ${row.name}`"
    @change="(now) => emit('set', 'scale', now ?? undefined)"
  />
  <span v-else-if="has('choices')" class="choices">
    <AutoComplete
      :value="row.choices"
      :options="[...lists, ...lookups].map((value) => ({ value }))"
      :disabled="readOnly"
      size="small"
      placeholder="low, high, a list or a lookup"
      style="flex: 1; min-width: 0"
      :aria-label="`Codes or choice list of ${row.name}`"
      @change="(now) => emit('set', 'choices', now)"
    />
    <Tooltip :title="listOf() ? `Edit ${listOf()}` : 'Make a choice list'">
      <Button
        v-if="!readOnly || listOf()"
        type="text"
        size="small"
        :aria-label="listOf() ? `Edit the list ${listOf()}` : `Make a choice list for ${row.name}`"
        @click="emit('list', listOf())"
        ><UnorderedListOutlined
      /></Button>
    </Tooltip>
  </span>
  <AutoComplete
    v-else-if="has('to')"
    :value="row.to"
    :options="objects.map((value) => ({ value }))"
    :disabled="readOnly"
    size="small"
    placeholder="to object"
    style="width: 100%"
    :aria-label="`Object that ${row.name} points to`"
    @change="(now) => emit('set', 'to', now)"
  />
</template>

<style scoped>
.choices {
  display: flex;
  align-items: center;
}
</style>
