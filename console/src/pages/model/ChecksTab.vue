<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, Checkbox, Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import LogicEditor from '@/editor/LogicEditor.vue'
import { addCheck, readChecks, readLifecycle, readLogic, removeAt, setAt } from '@/editor/logicFile'
import TypedInput from '@/components/TypedInput.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const { objects } = useModel('OUTLINE')
const checks = computed(() => readChecks(props.text))
const fields = computed(() =>
  readLogic(props.text)
    .filter((row) => !row.part)
    .map((row) => ({ value: row.name })),
)
const transitions = computed(() =>
  (readLifecycle(props.text)?.transitions ?? []).map((one) => ({ value: one.name, label: one.name })),
)
const set = (at: number, key: string, value: unknown) =>
  emit('update', setAt(props.text, ['checks', at, key], value))
</script>

<template>
  <div class="list">
    <p v-if="!checks.length" class="quiet">
      No check yet. A check is a condition that must be true before a record is saved or a transition is
      taken, with the message people read when it is not.
    </p>
    <article v-for="(check, at) in checks" :key="at" class="one">
      <div class="head">
        <TypedInput
          class="name mono"
          :value="check.name"
          :disabled="readOnly"
          aria-label="Name of the check"
          @change="set(at, 'name', ($event.target as HTMLInputElement).value)"
        />
        <span class="spacer"></span>
        <Checkbox
          :checked="check.warning"
          :disabled="readOnly"
          @change="set(at, 'severity', check.warning ? '' : 'warning')"
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
        @update="(now) => set(at, 'that', now)"
        @touched="(now) => emit('chosen', { role: 'CHECK', object, text: now })"
      />
      <label>otherwise say</label>
      <LogicEditor
        :text="check.say"
        role="SAY"
        :object="object"
        :label="`Message of ${check.name}`"
        :read-only="readOnly"
        @update="(now) => set(at, 'say', now)"
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
          @change="(now) => set(at, 'at', now)"
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
          @change="(now) => set(at, 'before', (now as string[]).length ? now : '')"
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
            @change="(event) => set(at, 'on', (event.target as HTMLInputElement).value)"
          />
        </template>
      </div>
    </article>
    <Button v-if="!readOnly" size="small" class="add" @click="emit('update', addCheck(text))"
      ><PlusOutlined /> Add check</Button
    >
  </div>
</template>

<style scoped>
@import './logic-list.css';
</style>
