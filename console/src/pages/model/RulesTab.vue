<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Input } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import LogicEditor from '@/editor/LogicEditor.vue'
import { addRule, readRules, setAt } from '@/editor/logicFile'
import NamedCard from './NamedCard.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const { objects } = useModel('OUTLINE')
const rules = computed(() => readRules(props.text))
const set = (name: string, key: string, value: unknown) =>
  emit('update', setAt(props.text, ['rules', name, key], value))
const typed = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="list">
    <p v-if="!rules.length" class="quiet">
      No rule yet. A rule says: on this change, when this holds, then do that.
    </p>
    <NamedCard
      v-for="rule in rules"
      :key="rule.name"
      :text="text"
      kind="rules"
      :name="rule.name"
      what="rule"
      :read-only="readOnly"
      @update="(now) => emit('update', now)"
    >
      <template #head>
        <Input
          :value="rule.label"
          :disabled="readOnly"
          size="small"
          :bordered="false"
          placeholder="What it is for"
          aria-label="Label of the rule"
          @change="(event) => set(rule.name, 'label', typed(event as Event))"
        />
      </template>
      <div class="foot">
        <span class="quiet">on</span>
        <Input
          :value="rule.on"
          :disabled="readOnly"
          size="small"
          style="max-width: 360px"
          placeholder="create, change, retire, or change of quantity"
          aria-label="On"
          @change="(event) => set(rule.name, 'on', typed(event as Event))"
        />
      </div>
      <label>when</label>
      <ConditionInput
        :text="rule.when"
        role="WHEN"
        :objects="objects"
        :object="object"
        :label="`Condition of ${rule.name}`"
        placeholder="always"
        :read-only="readOnly"
        @update="(now) => set(rule.name, 'when', now)"
        @touched="(now) => emit('chosen', { role: 'WHEN', object, text: now })"
      />
      <label>then</label>
      <LogicEditor
        :text="rule.then"
        role="THEN"
        :object="object"
        :label="`Steps of ${rule.name}`"
        :read-only="readOnly"
        @update="(now) => set(rule.name, 'then', now)"
        @touched="(now) => emit('chosen', { role: 'THEN', object, text: now })"
      />
    </NamedCard>
    <Button v-if="!readOnly" size="small" class="add" @click="emit('update', addRule(text).text)"
      ><PlusOutlined /> Add rule</Button
    >
  </div>
</template>

<style scoped>
@import './logic-list.css';
</style>
