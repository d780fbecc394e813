<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, Checkbox, Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { ObjectView } from '@/api/client'
import type { LogicText } from '@/api/logic'
import TypedInput from '@/components/TypedInput.vue'
import ConditionInput from '@/conditions/ConditionInput.vue'
import { readLifecycle, readLogic, removeAt, setAt, type CheckRow } from '@/editor/logicFile'
import LogicEditor from '@/editor/LogicEditor.vue'

/** One check: what must be true, what is said otherwise, and when it is looked at. */
const props = defineProps<{
  check: CheckRow
  /** Its place among the checks of the file. */
  at: number
  text: string
  object: string
  objects: ObjectView[]
  readOnly: boolean
}>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const fields = computed(() =>
  readLogic(props.text)
    .filter((row) => !row.part)
    .map((row) => ({ value: row.name })),
)
const transitions = computed(() =>
  (readLifecycle(props.text)?.transitions ?? []).map((one) => ({ value: one.name, label: one.name })),
)
const set = (key: string, value: unknown) =>
  emit('update', setAt(props.text, ['checks', props.at, key], value))
</script>

<template>
  <article class="one">
    <div class="head">
      <TypedInput
        class="name mono"
        :value="check.name"
        :disabled="readOnly"
        aria-label="Name of the check"
        @change="set('name', ($event.target as HTMLInputElement).value)"
      />
      <span class="spacer"></span>
      <Checkbox
        :checked="check.warning"
        :disabled="readOnly"
        @change="set('severity', check.warning ? '' : 'warning')"
        >only warns</Checkbox
      >
      <Button
        v-if="!readOnly"
        type="text"
        size="small"
        :aria-label="`Remove ${check.name}`"
        @click="emit('update', removeAt(text, ['checks', at]))"
        ><DeleteOutlined
      /></Button>
    </div>
    <label>must be true</label>
    <ConditionInput
      :text="check.that"
      role="CHECK"
      :objects="objects"
      :object="object"
      :label="`Condition of ${check.name}`"
      :read-only="readOnly"
      @update="(now) => set('that', now)"
      @touched="(now) => emit('chosen', { role: 'CHECK', object, text: now })"
    />
    <label>otherwise say</label>
    <LogicEditor
      :text="check.say"
      role="SAY"
      :object="object"
      :label="`Message of ${check.name}`"
      :read-only="readOnly"
      @update="(now) => set('say', now)"
      @touched="(now) => emit('chosen', { role: 'SAY', object, text: now })"
    />
    <div class="foot">
      <span class="quiet">at field</span>
      <AutoComplete
        :value="check.at"
        :options="fields"
        :disabled="readOnly"
        size="small"
        placeholder="the record"
        style="width: 140px"
        aria-label="Field the message is about"
        @change="(now) => set('at', now)"
      />
      <span class="quiet">before</span>
      <Select
        :value="check.before ? check.before.split(', ') : []"
        mode="multiple"
        :options="transitions"
        :disabled="readOnly"
        size="small"
        placeholder="any save"
        style="min-width: 140px"
        aria-label="Before transitions"
        @change="(now) => set('before', (now as string[]).length ? now : '')"
      />
      <template v-if="!check.before">
        <span class="quiet">on</span>
        <Input
          :value="check.on"
          :disabled="readOnly"
          size="small"
          placeholder="any save"
          style="width: 160px"
          aria-label="When it is looked at"
          @change="(event) => set('on', (event.target as HTMLInputElement).value)"
        />
      </template>
    </div>
  </article>
</template>

<style scoped>
@import './logic-list.css';
</style>
