<script setup lang="ts">
import { Checkbox, CheckboxGroup, Input, Popconfirm, Button } from 'ant-design-vue'
import { DeleteOutlined } from '@ant-design/icons-vue'
import { computed } from 'vue'
import { removeResource, setOnResource, type ResourceFile } from '@/editor/serviceFile'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import type { DesignModel } from './designTree'
import PresetRows from './PresetRows.vue'

/** What a resource is, which records it shows, and what can be called besides its fields. */
const props = defineProps<{
  text: string
  resource: ResourceFile
  object: DesignModel
  readOnly: boolean
}>()
const emit = defineEmits<{ update: [text: string]; removed: [] }>()

const set = (key: string, value: unknown) =>
  emit('update', setOnResource(props.text, props.resource.name, key, value))
const { objects } = useModel('OUTLINE')
const calls = computed(() => {
  const functions = (props.object.functions ?? []).filter((one) => one.external && one.onRecord)
  // A function that has the name of a transition stands in for it.
  const transitions = (props.object.lifecycle?.transitions ?? []).filter(
    (one) => !functions.some((other) => other.name === one.name),
  )
  return [...transitions, ...functions].map((one) => ({ value: one.name, label: one.label }))
})
function remove() {
  emit('update', removeResource(props.text, props.resource.name))
  emit('removed')
}
</script>

<template>
  <div class="facts">
    <label for="describe">Description</label>
    <div class="row">
      <Input
        id="describe"
        :value="resource.describe"
        :disabled="readOnly"
        size="small"
        placeholder="What it is, for the contract"
        @update:value="(now: string) => set('describe', now)"
      />
      <Popconfirm v-if="!readOnly" title="Take this resource out of the service?" @confirm="remove">
        <Button size="small" type="text" :aria-label="`Remove ${resource.name}`"><DeleteOutlined /></Button>
      </Popconfirm>
    </div>
    <div class="name">Only records where</div>
    <ConditionInput
      :text="resource.where ?? ''"
      role="CONDITION"
      :objects="objects"
      :object="object.name"
      label="Only records where"
      placeholder="every record"
      :read-only="readOnly"
      @update="(now) => set('where', now)"
    />
    <template v-if="calls.length">
      <div class="name">Calls</div>
      <CheckboxGroup
        :value="resource.calls"
        :options="calls"
        :disabled="readOnly"
        @change="(now) => set('calls', now)"
      />
    </template>
    <div class="name">Besides</div>
    <div>
      <Checkbox :checked="resource.remove" :disabled="readOnly" @change="set('remove', !resource.remove)"
        >Remove records</Checkbox
      >
      <Checkbox
        :checked="resource.needsVersion"
        :disabled="readOnly"
        @change="set('needsVersion', !resource.needsVersion)"
        >Changes must say the version they are based on</Checkbox
      >
    </div>
    <template v-if="resource.lists.create">
      <div class="name">New records have</div>
      <PresetRows
        :text="text"
        :resource="resource"
        :object="object"
        :read-only="readOnly"
        @update="(now) => emit('update', now)"
      />
    </template>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
  margin-bottom: 10px;
}
.facts > label,
.name {
  color: var(--quiet);
  font-size: 12.5px;
}
</style>
