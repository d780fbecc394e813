<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Checkbox, Input } from 'ant-design-vue'
import { computed } from 'vue'
import type { LogicText } from '@/api/logic'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import LogicEditor from '@/editor/LogicEditor.vue'
import { setAt } from '@/editor/logicFile'
import { addReaction, readHandlers, readSchedules } from '@/editor/reactionFile'
import NamedCard from './NamedCard.vue'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const { objects } = useModel('OUTLINE')
const handlers = computed(() => readHandlers(props.text))
const schedules = computed(() => readSchedules(props.text))
type Kind = 'handlers' | 'schedules'
const set = (kind: Kind, name: string, key: string, value: unknown) =>
  emit('update', setAt(props.text, [kind, name, key], value))
const typed = (event: Event) => (event.target as HTMLInputElement).value
const names = (written: string) => {
  const all = written.split(/\s*,\s*/).filter((one) => one)
  return all.length > 1 ? all : (all[0] ?? '')
}
</script>

<template>
  <div class="list">
    <p v-if="!handlers.length" class="quiet">
      No handler yet. A handler does something when an event is heard, such as {{ object }}.created.
    </p>
    <NamedCard
      v-for="one in handlers"
      :key="`h-${one.name}`"
      :text="text"
      kind="handlers"
      :name="one.name"
      what="handler"
      :read-only="readOnly"
      @update="(now) => emit('update', now)"
    >
      <div class="foot">
        <span class="quiet">hears</span>
        <Input
          :value="one.on"
          :disabled="readOnly"
          size="small"
          style="max-width: 300px"
          aria-label="Events it hears"
          @change="(event) => set('handlers', one.name, 'on', names(typed(event as Event)))"
        />
        <Checkbox
          :checked="one.isWithin"
          :disabled="readOnly"
          title="Otherwise it is run right after the change, again and again until it succeeds."
          @change="set('handlers', one.name, 'run', one.isWithin ? '' : 'with')"
          >in the change itself</Checkbox
        >
        <Checkbox
          :checked="one.isBatch"
          :disabled="readOnly"
          @change="set('handlers', one.name, 'batch', one.isBatch ? '' : true)"
          >many at once</Checkbox
        >
      </div>
      <label>when</label>
      <ConditionInput
        :text="one.when"
        role="HANDLER_WHEN"
        :objects="objects"
        :object="object"
        :field="one.name"
        :label="`Condition of ${one.name}`"
        placeholder="always"
        :read-only="readOnly"
        @update="(now) => set('handlers', one.name, 'when', now)"
      />
      <label>then</label>
      <LogicEditor
        :text="one.then"
        role="HANDLER_THEN"
        :object="object"
        :field="one.name"
        :label="`Steps of ${one.name}`"
        :read-only="readOnly"
        @update="(now) => set('handlers', one.name, 'then', now)"
      />
    </NamedCard>
    <Button
      v-if="!readOnly"
      size="small"
      class="add"
      @click="emit('update', addReaction(text, 'handlers', object))"
      ><PlusOutlined /> Add handler</Button
    >
    <p v-if="!schedules.length" class="quiet">
      No schedule yet. A schedule does something at its times, or some days before or after a date of a
      record.
    </p>
    <NamedCard
      v-for="one in schedules"
      :key="`s-${one.name}`"
      :text="text"
      kind="schedules"
      :name="one.name"
      what="schedule"
      :read-only="readOnly"
      @update="(now) => emit('update', now)"
    >
      <div class="foot">
        <span class="quiet">every</span>
        <Input
          :value="one.every"
          :disabled="readOnly || !!one.on"
          class="mono"
          size="small"
          style="width: 130px"
          placeholder="0 6 * * 1"
          aria-label="Every"
          @change="(event) => set('schedules', one.name, 'every', typed(event as Event))"
        />
        <span class="quiet">or on</span>
        <Input
          :value="one.on"
          :disabled="readOnly || !!one.every"
          size="small"
          style="width: 220px"
          placeholder="7 days before insuredUntil"
          aria-label="On the day"
          @change="(event) => set('schedules', one.name, 'on', typed(event as Event))"
        />
        <span class="quiet">at</span>
        <Input
          :value="one.at"
          :disabled="readOnly || !!one.every"
          size="small"
          style="width: 70px"
          placeholder="06:00"
          aria-label="At"
          @change="(event) => set('schedules', one.name, 'at', typed(event as Event))"
        />
        <Checkbox
          :checked="one.skips"
          :disabled="readOnly"
          title="Otherwise it is made good once when the service is back."
          @change="set('schedules', one.name, 'missed', one.skips ? '' : 'skip')"
          >skip what was missed</Checkbox
        >
      </div>
      <label>where</label>
      <ConditionInput
        :text="one.where"
        role="SCHEDULE_WHERE"
        :objects="objects"
        :object="object"
        :field="one.name"
        :label="`Records of ${one.name}`"
        placeholder="all records"
        :read-only="readOnly"
        @update="(now) => set('schedules', one.name, 'where', now)"
      />
      <label>then</label>
      <LogicEditor
        :text="one.then"
        role="SCHEDULE_THEN"
        :object="object"
        :field="one.name"
        :label="`Steps of ${one.name}`"
        :read-only="readOnly"
        @update="(now) => set('schedules', one.name, 'then', now)"
      />
    </NamedCard>
    <Button
      v-if="!readOnly"
      size="small"
      class="add"
      @click="emit('update', addReaction(text, 'schedules', object))"
      ><PlusOutlined /> Add schedule</Button
    >
  </div>
</template>

<style scoped>
@import './logic-list.css';
</style>
