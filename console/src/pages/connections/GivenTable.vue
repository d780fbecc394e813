<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import type { OperationView } from '@/api/connections'
import TypedInput from '@/components/TypedInput.vue'
import { written } from '@/editor/connectionFile'

/** What a connection gives, a line each: names, places in answers, how long they are kept. */
export interface Column {
  key: string
  title: string
  placeholder?: string
  /** What may be said; anything when absent. */
  words?: string[]
}
const props = defineProps<{
  rows: Record<string, string | undefined>[]
  columns: Column[]
  operations: OperationView[]
  readOnly: boolean
}>()
const emit = defineEmits<{
  set: [name: string, key: string, value: string]
  rename: [name: string, to: string]
  remove: [name: string]
  pick: [name: string]
  uses: [name: string]
}>()
const known = (call: string | undefined) => props.operations.some((one) => written(one) === call)
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="wide">
    <table class="given">
      <thead>
        <tr>
          <th>Name</th>
          <th>Operation</th>
          <th v-for="column in columns" :key="column.key">{{ column.title }}</th>
          <th><span class="unseen">Tools</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.name" :data-test="row.name">
          <td>
            <TypedInput
              class="mono"
              :value="row.name"
              :disabled="readOnly"
              :aria-label="`Name of ${row.name}`"
              @change="(event) => emit('rename', row.name!, typed(event))"
            />
          </td>
          <td>
            <code>{{ row.call }}</code>
          </td>
          <td v-for="column in columns" :key="column.key">
            <select
              v-if="column.words"
              class="typed"
              :value="row[column.key] ?? ''"
              :disabled="readOnly"
              :aria-label="`${column.title} of ${row.name}`"
              @change="(event) => emit('set', row.name!, column.key, typed(event))"
            >
              <option value="">{{ column.placeholder }}</option>
              <option v-for="word in column.words" :key="word" :value="word">{{ word }}</option>
            </select>
            <TypedInput
              v-else
              class="mono"
              :value="row[column.key] ?? ''"
              :placeholder="column.placeholder"
              :disabled="readOnly"
              :aria-label="`${column.title} of ${row.name}`"
              @change="(event) => emit('set', row.name!, column.key, typed(event))"
            />
          </td>
          <td class="tools">
            <Button v-if="known(row.call)" size="small" @click="emit('pick', row.name!)">Try and pick</Button>
            <Button size="small" type="text" @click="emit('uses', row.name!)">Used by</Button>
            <Button
              v-if="!readOnly"
              type="text"
              size="small"
              :aria-label="`Remove ${row.name}`"
              @click="emit('remove', row.name!)"
              ><DeleteOutlined
            /></Button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
.given {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 8px;
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
  font-size: 12.5px;
}
td {
  padding: 3px 8px 3px 0;
}
.typed {
  width: 100%;
  min-width: 70px;
}
.tools {
  text-align: right;
  white-space: nowrap;
}
</style>
