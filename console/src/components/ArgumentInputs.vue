<script setup lang="ts">
import { Input, Textarea } from 'ant-design-vue'
import type { ParameterView } from '@/api/client'
import type { Plain, Values } from '@/api/records'
import FieldInput from './FieldInput.vue'

/** Inputs for the parameters of a function. A list or a context is entered as JSON. */
const props = defineProps<{
  parameters: ParameterView[]
  values: Values
  messages: Record<string, string>
}>()
const emit = defineEmits<{ update: [values: Values] }>()

function set(name: string, value: Plain) {
  emit('update', { ...props.values, [name]: value })
}
function setJson(name: string, written: string) {
  try {
    set(name, written.trim() ? (JSON.parse(written) as Plain) : null)
  } catch {
    // What is no JSON yet goes as it is; the service says what is wrong with it.
    set(name, written)
  }
}
const json = (value: Plain | undefined) =>
  value === undefined || value === null ? '' : typeof value === 'string' ? value : JSON.stringify(value)
const typed = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div v-for="one in parameters" :key="one.name" class="argument">
    <label :for="`a-${one.name}`">
      {{ one.label }}<span v-if="one.required" class="star" title="Required">*</span>
    </label>
    <FieldInput
      v-if="one.field && !one.list"
      :id="`a-${one.name}`"
      :field="{ ...one.field, required: one.required }"
      :value="values[one.name]"
      :wrong="!!messages[one.name]"
      @update="(now) => set(one.name, now)"
    />
    <component
      :is="one.list ? Textarea : Input"
      v-else
      :id="`a-${one.name}`"
      class="mono"
      :value="json(values[one.name])"
      :placeholder="`${one.typeWords}, as JSON`"
      @change="(event: Event) => setJson(one.name, typed(event))"
    />
    <div v-if="messages[one.name]" class="wrong" role="alert">{{ messages[one.name] }}</div>
    <div v-else-if="one.describe" class="hint">{{ one.describe }}</div>
  </div>
</template>

<style scoped>
.argument {
  margin-bottom: 10px;
}
label {
  display: block;
  margin-bottom: 3px;
  color: var(--quiet);
}
.star,
.wrong {
  color: var(--bad);
}
.wrong,
.hint {
  font-size: 12.5px;
  margin-top: 2px;
}
.hint {
  color: var(--quiet);
}
</style>
