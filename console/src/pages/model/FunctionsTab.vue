<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Checkbox, Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import LogicEditor from '@/editor/LogicEditor.vue'
import { removeAt, renameAt, setAt } from '@/editor/logicFile'
import { addReaction, readFunctions, setParameter, typeNode, type FunctionRow } from '@/editor/reactionFile'
import NamedCard from './NamedCard.vue'
import TypedInput from '@/components/TypedInput.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const functions = computed(() => readFunctions(props.text))
const set = (name: string, key: string, value: unknown) =>
  emit('update', setAt(props.text, ['functions', name, key], value))
const typed = (event: Event) => (event.target as HTMLInputElement).value

function change(one: FunctionRow, name: string, type: string, required: boolean) {
  emit('update', setParameter(props.text, one.name, name, type, required))
}
function addParameter(one: FunctionRow) {
  let name = 'value'
  for (let count = 2; one.parameters.some((other) => other.name === name); count++) name = `value${count}`
  change(one, name, 'text', false)
}
function removeParameter(one: FunctionRow, name: string) {
  const path = ['functions', one.name, 'parameters']
  emit('update', removeAt(props.text, one.parameters.length > 1 ? [...path, name] : path))
}
const chosen = (one: FunctionRow, text: string) =>
  emit('chosen', { role: 'BODY', object: props.object, field: one.name, text })
</script>

<template>
  <div class="list">
    <p v-if="!functions.length" class="quiet">
      No function yet. A function takes arguments, does its steps in one piece, and gives back a result.
    </p>
    <NamedCard
      v-for="one in functions"
      :key="one.name"
      :text="text"
      kind="functions"
      :name="one.name"
      what="function"
      :subject="{ kind: 'function', object, name: one.name }"
      :read-only="readOnly"
      @update="(now) => emit('update', now)"
    >
      <template #head>
        <Input
          :value="one.label"
          :disabled="readOnly"
          size="small"
          :bordered="false"
          placeholder="What people call it"
          aria-label="Label of the function"
          @change="(event) => set(one.name, 'label', typed(event as Event))"
        />
        <Button size="small" @click="chosen(one, one.body)">Try it</Button>
      </template>
      <div class="foot">
        <span class="quiet">called on</span>
        <Select
          :value="one.isOnRecord ? 'record' : 'object'"
          :disabled="readOnly"
          size="small"
          :options="[
            { value: 'record', label: 'a record' },
            { value: 'object', label: 'no record' },
          ]"
          aria-label="Called on"
          style="width: 110px"
          @change="(now) => set(one.name, 'on', now)"
        />
        <Checkbox
          :checked="one.isExternal"
          :disabled="readOnly"
          @change="set(one.name, 'external', one.isExternal ? '' : true)"
          >from outside</Checkbox
        >
        <Checkbox
          :checked="one.hasOwnRights"
          :disabled="readOnly"
          title="Its changes are allowed to it even where the caller may not make them."
          @change="set(one.name, 'rights', one.hasOwnRights ? '' : 'own')"
          >own rights</Checkbox
        >
        <span class="quiet">gives back</span>
        <Input
          :value="one.returns"
          :disabled="readOnly || !one.isReturnPlain"
          :title="one.isReturnPlain ? undefined : 'It has more to it than a type; see the text beside.'"
          size="small"
          style="width: 150px"
          placeholder="nothing"
          aria-label="Gives back"
          @change="
            (event) =>
              set(one.name, 'returns', typed(event as Event) ? typeNode(typed(event as Event), false) : '')
          "
        />
      </div>
      <label>parameters</label>
      <div class="parameters">
        <div v-for="parameter in one.parameters" :key="parameter.name" class="parameter">
          <TypedInput
            class="name mono"
            :value="parameter.name"
            :disabled="readOnly"
            aria-label="Name of the parameter"
            @change="
              emit(
                'update',
                renameAt(text, ['functions', one.name, 'parameters'], parameter.name, typed($event)),
              )
            "
          />
          <Input
            :value="parameter.type"
            :disabled="readOnly || !parameter.isPlain"
            :title="parameter.isPlain ? undefined : 'It has more to it than a type; see the text beside.'"
            size="small"
            aria-label="Type"
            @change="(event) => change(one, parameter.name, typed(event as Event), parameter.required)"
          />
          <Checkbox
            :checked="parameter.required"
            :disabled="readOnly || !parameter.isPlain"
            @change="change(one, parameter.name, parameter.type, !parameter.required)"
            >required</Checkbox
          >
          <Button
            v-if="!readOnly"
            type="text"
            size="small"
            :aria-label="`Remove ${parameter.name}`"
            @click="removeParameter(one, parameter.name)"
            ><DeleteOutlined
          /></Button>
        </div>
        <Button v-if="!readOnly" size="small" type="dashed" class="add" @click="addParameter(one)"
          ><PlusOutlined /> Add parameter</Button
        >
      </div>
      <label>steps</label>
      <LogicEditor
        :text="one.body"
        role="BODY"
        :object="object"
        :field="one.name"
        :label="`Steps of ${one.name}`"
        :read-only="readOnly"
        @update="(now) => set(one.name, 'body', now)"
        @touched="(now) => chosen(one, now)"
      />
    </NamedCard>
    <Button
      v-if="!readOnly"
      size="small"
      class="add"
      @click="emit('update', addReaction(text, 'functions', object))"
      ><PlusOutlined /> Add function</Button
    >
  </div>
</template>

<style scoped>
@import './logic-list.css';
.parameters {
  display: grid;
  gap: 4px;
}
.parameter {
  display: grid;
  grid-template-columns: 190px 200px auto auto;
  gap: 8px;
  align-items: center;
  justify-content: start;
}
</style>
