<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import { useModel } from '@/composables/model'
import { addCheck, readChecks } from '@/editor/logicFile'
import CheckCard from './CheckCard.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const { objects } = useModel('OUTLINE')
const checks = computed(() => readChecks(props.text))
</script>

<template>
  <div class="list">
    <p v-if="!checks.length" class="quiet">
      No check yet. A check is a condition that must be true before a record is saved or a transition is
      taken, with the message people read when it is not.
    </p>
    <CheckCard
      v-for="(check, at) in checks"
      :key="at"
      :check="check"
      :at="at"
      :text="text"
      :object="object"
      :objects="objects"
      :read-only="readOnly"
      @update="(now) => emit('update', now)"
      @chosen="(now) => emit('chosen', now)"
    />
    <Button v-if="!readOnly" size="small" class="add" @click="emit('update', addCheck(text))"
      ><PlusOutlined /> Add check</Button
    >
  </div>
</template>

<style scoped>
@import './logic-list.css';
</style>
