<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import type { ObjectView } from '@/api/client'
import type { Action, ActionKind } from '@/editor/requirementFile'
import ActionForm from './ActionForm.vue'
import { knownAfter } from './known'

/** What is done one after the other; each can name the records of those before it. */
const props = defineProps<{
  objects: ObjectView[]
  /** What was done before all of these. */
  before: Action[]
  label: string
  readOnly?: boolean
  only?: ActionKind[]
}>()
const actions = defineModel<Action[]>({ required: true })

const known = (at: number) => knownAfter(props.objects, [...props.before, ...actions.value.slice(0, at)])
const set = (at: number, now: Action) =>
  (actions.value = actions.value.map((one, place) => (place === at ? now : one)))
const add = () =>
  (actions.value = [...actions.value, { kind: 'create', target: props.objects[0]?.name ?? '', values: {} }])
</script>

<template>
  <div class="actions">
    <ActionForm
      v-for="(action, at) in actions"
      :key="at"
      :model-value="action"
      :known="known(at)"
      :only="only"
      :label="`${label} ${at + 1}`"
      :read-only="readOnly"
      @update:model-value="(now: Action) => set(at, now)"
      @removed="actions = actions.filter((_, place) => place !== at)"
    />
    <Button v-if="!readOnly" size="small" type="text" class="add" @click="add"
      ><PlusOutlined /> {{ label }}</Button
    >
  </div>
</template>

<style scoped>
.actions {
  display: grid;
  gap: 6px;
}
.add {
  justify-self: start;
}
</style>
