<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import { ownPaths, setPreset, ticked, type ResourceFile } from '@/editor/serviceFile'
import type { DesignModel } from './designTree'

/** Values that every record created through a resource has, and that no caller gives. */
const props = defineProps<{
  text: string
  resource: ResourceFile
  object: DesignModel
  readOnly: boolean
}>()
const emit = defineEmits<{ update: [text: string] }>()

const given = computed(() => ticked(props.resource.lists.create ?? [], props.object, 'create'))
/** What can be preset: what a caller could give, but is not asked for. */
const free = computed(() =>
  ownPaths(props.object, 'create').filter(
    (path) => !path.includes('.') && !given.value.has(path) && !(path in props.resource.preset),
  ),
)
const set = (field: string, value: string | undefined) =>
  emit('update', setPreset(props.text, props.resource.name, field, value))
</script>

<template>
  <div class="rows">
    <div v-for="(value, field) in resource.preset" :key="field" class="row">
      <code>{{ field }}</code>
      <Input
        :value="value"
        :disabled="readOnly"
        size="small"
        :aria-label="`Preset of ${field}`"
        @change="(event) => set(String(field), (event.target as HTMLInputElement).value)"
      />
      <Button
        v-if="!readOnly"
        size="small"
        type="text"
        :aria-label="`Remove the preset of ${field}`"
        @click="set(String(field), undefined)"
        ><DeleteOutlined
      /></Button>
    </div>
    <Select
      v-if="!readOnly && free.length"
      :value="undefined"
      size="small"
      show-search
      :options="free.map((value) => ({ value }))"
      style="width: 190px"
      aria-label="Field to preset"
      @change="(now) => set(String(now), '')"
    >
      <template #placeholder><PlusOutlined /> a value for a field</template>
    </Select>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 4px;
}
.row code {
  min-width: 120px;
}
.row :deep(input) {
  max-width: 260px;
}
</style>
