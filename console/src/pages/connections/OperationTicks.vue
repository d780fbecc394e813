<script setup lang="ts">
import { Checkbox, Input } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { OperationView } from '@/api/connections'
import { written } from '@/editor/connectionFile'

/** Ticks those operations of a document that are used. */
const props = defineProps<{ operations: OperationView[]; ticked: string[] }>()
const emit = defineEmits<{ tick: [ticked: string[]] }>()
const MANY = 12
const SHOWN = 200
const search = ref('')
const fitting = computed(() => {
  const wanted = search.value.trim().toLowerCase()
  return props.operations.filter((one) => `${written(one)} ${one.summary}`.toLowerCase().includes(wanted))
})
const toggle = (name: string) =>
  emit(
    'tick',
    props.ticked.includes(name) ? props.ticked.filter((one) => one !== name) : [...props.ticked, name],
  )
</script>

<template>
  <div>
    <Input
      v-if="operations.length > MANY"
      v-model:value="search"
      size="small"
      allow-clear
      placeholder="Find an operation …"
      aria-label="Find an operation"
    />
    <ul>
      <li v-for="one in fitting.slice(0, SHOWN)" :key="written(one)">
        <Checkbox :checked="ticked.includes(written(one))" @change="toggle(written(one))">
          <code>{{ written(one) }}</code>
          <span class="quiet said">{{ one.summary }}</span>
        </Checkbox>
      </li>
    </ul>
    <p v-if="fitting.length > SHOWN" class="quiet">{{ fitting.length - SHOWN }} more; type to find one.</p>
  </div>
</template>

<style scoped>
.said {
  margin-left: 8px;
}
ul {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  max-height: 320px;
  overflow: auto;
  display: grid;
  gap: 2px;
}
</style>
