<script setup lang="ts">
import { DownOutlined, RightOutlined } from '@ant-design/icons-vue'
import { Checkbox } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { COLUMNS, ownPaths, tick, ticked, type Column, type ResourceFile } from '@/editor/serviceFile'
import { designLines, openFor, type DesignLine, type DesignModel } from './designTree'

/** The fields of an object with a column for each operation, to be ticked. */
const props = defineProps<{
  text: string
  resource: ResourceFile
  object: DesignModel
  objects: DesignModel[]
  readOnly: boolean
}>()
const emit = defineEmits<{ update: [text: string] }>()

const TITLES: Record<Column, [string, string]> = {
  create: ['Create', 'What a caller gives for a new record'],
  read: ['Read', 'What a single record shows'],
  update: ['Update', 'What a caller may change'],
  query: ['Query', 'What records in a list show'],
  filter: ['Filter', 'What lists can be filtered by'],
  sort: ['Sort', 'What lists can be sorted by'],
}

const sets = computed(
  () =>
    Object.fromEntries(
      COLUMNS.map((column) => [column, ticked(props.resource.lists[column] ?? [], props.object, column)]),
    ) as Record<Column, Set<string>>,
)
const open = ref(new Set<string>())
watch(
  () => props.resource.name + props.object.name,
  () => (open.value = openFor(Object.values(sets.value).flatMap((set) => [...set]))),
  { immediate: true },
)
const lines = computed(() => designLines(props.object, props.objects, open.value))

function flip(path: string) {
  const now = new Set(open.value)
  if (!now.delete(path)) now.add(path)
  open.value = now
}

const own = (column: Column) => ownPaths(props.object, column)
const pathsOf = (line: DesignLine, column: Column) =>
  line.items.length ? line.items.filter((path) => own(column).includes(path)) : [line.path]
const isAll = (paths: string[], column: Column) =>
  paths.length > 0 && paths.every((path) => sets.value[column].has(path))
const isSome = (paths: string[], column: Column) =>
  !isAll(paths, column) && paths.some((path) => sets.value[column].has(path))
const isBlocked = (column: Column) =>
  props.readOnly || ((column === 'filter' || column === 'sort') && !props.resource.lists.query)

function set(column: Column, paths: string[], on: boolean) {
  emit('update', tick(props.text, props.resource.name, props.object, column, paths, on))
}
function setAll(column: Column) {
  const all = own(column)
  if (isAll(all, column)) set(column, [...sets.value[column]], false)
  else set(column, all, true)
}
</script>

<template>
  <table data-test="ticks">
    <thead>
      <tr>
        <th>Field</th>
        <th v-for="column in COLUMNS" :key="column" :title="TITLES[column][1]">
          <label>
            {{ TITLES[column][0] }}
            <Checkbox
              :checked="isAll(own(column), column)"
              :indeterminate="isSome(own(column), column)"
              :disabled="isBlocked(column)"
              :aria-label="`${TITLES[column][0]}: every field`"
              @change="setAll(column)"
            />
          </label>
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="line in lines" :key="line.path">
        <td :style="{ paddingLeft: `${line.depth * 18 + 4}px` }">
          <button
            v-if="line.opens"
            type="button"
            class="fold"
            :aria-label="`${open.has(line.path) ? 'Close' : 'Open'} ${line.path}`"
            :aria-expanded="open.has(line.path)"
            @click="flip(line.path)"
          >
            <DownOutlined v-if="open.has(line.path)" /><RightOutlined v-else />
          </button>
          <span v-else class="fold"></span>
          <code>{{ line.name }}</code> <span class="quiet">{{ line.type }}</span>
        </td>
        <td v-for="column in COLUMNS" :key="column">
          <Checkbox
            v-if="line.columns.includes(column)"
            :checked="isAll(pathsOf(line, column), column)"
            :indeterminate="isSome(pathsOf(line, column), column)"
            :disabled="isBlocked(column)"
            :aria-label="`${TITLES[column][0]} ${line.path}`"
            @change="set(column, pathsOf(line, column), !isAll(pathsOf(line, column), column))"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  position: sticky;
  top: -16px;
  z-index: 1;
  background: var(--surface);
  font-weight: 500;
  color: var(--quiet);
  font-size: 12.5px;
  width: 66px;
  vertical-align: bottom;
  padding: 4px 2px 6px;
  border-bottom: 1px solid var(--line);
}
th label {
  display: grid;
  justify-items: center;
  gap: 2px;
}
th:first-child {
  width: auto;
  text-align: left;
  padding-left: 26px;
}
td {
  text-align: center;
  padding: 1px 2px;
  border-bottom: 1px solid var(--line);
  height: 27px;
}
td:first-child {
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
td .quiet {
  font-size: 12px;
}
tr:hover td {
  background: var(--sunken);
}
.fold {
  display: inline-block;
  width: 20px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--quiet);
  font-size: 10px;
  cursor: pointer;
}
span.fold {
  cursor: default;
}
</style>
