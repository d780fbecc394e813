<script setup lang="ts">
import { Segmented } from 'ant-design-vue'
import { computed, ref, toRef } from 'vue'
import type { FieldView, ObjectView } from '@/api/client'
import type { Role } from '@/api/logic'
import LogicEditor from '@/editor/LogicEditor.vue'
import ConditionGroup from './ConditionGroup.vue'
import { useCondition } from './condition'
import type { Scope } from './operands'

/**
 * A condition, put together from parts or written in FEEL; both are the same text. What cannot be taken
 * apart is shown as text.
 */
const props = defineProps<{
  text: string
  role: Role
  objects: ObjectView[]
  object?: string
  part?: string
  /** The reference whose offer it is, or the handler or schedule it belongs to. */
  field?: string
  /** Fields of no record, such as those of an event. */
  plain?: FieldView[]
  label: string
  placeholder?: string
  readOnly?: boolean
  /** Whether the text can be checked while it is written, which needs the duty to design. */
  unchecked?: boolean
}>()
const emit = defineEmits<{ update: [text: string]; touched: [text: string] }>()

const wanted = ref<'Parts' | 'FEEL'>()
const { parts, isText, problem, unfinished, change } = useCondition(
  toRef(props, 'text'),
  (now) => {
    // A check must say something; without any part it asks for nothing.
    const whole = now || (props.role === 'CHECK' ? 'true' : '')
    emit('update', whole)
    emit('touched', whole)
  },
  computed(() => wanted.value !== 'FEEL'),
)
/** What cannot be taken apart is text, until somebody wants parts. */
const view = computed(() => wanted.value ?? (isText.value ? 'FEEL' : 'Parts'))

const object = computed(() => props.objects.find((one) => one.name === props.object))
const target = computed(() => {
  if (props.role !== 'OFFER' || !props.field) return undefined
  const fields = props.part
    ? object.value?.parts.find((one) => one.name === props.part)?.fields
    : object.value?.fields
  const to = fields?.find((one) => one.name === props.field)?.to
  return props.objects.find((one) => one.name === to)
})
const scope = computed<Scope>(() => ({
  objects: props.objects,
  object: object.value,
  part: props.part,
  target: target.value,
  plain: props.plain,
  changes: props.role === 'CHECK' || props.role === 'WHEN',
}))
</script>

<template>
  <div
    :class="['condition', { written: view === 'FEEL' || readOnly || unfinished }]"
    @focusin="emit('touched', text)"
  >
    <template v-if="view === 'Parts' && parts">
      <p v-if="!parts.parts.length && placeholder" class="quiet none">{{ placeholder }}</p>
      <ConditionGroup :model-value="parts" :scope="scope" :disabled="readOnly" @update:model-value="change" />
      <p v-if="unfinished" class="unfinished" role="status">
        Not kept yet: {{ unfinished === 1 ? 'one part is' : `${unfinished} parts are` }} not finished. What
        was there before still holds.
      </p>
    </template>
    <LogicEditor
      v-else
      :text="text"
      :role="role"
      :object="object ? props.object : undefined"
      :part="part"
      :field="field"
      :label="label"
      :placeholder="placeholder"
      :read-only="readOnly"
      :unchecked="unchecked"
      @update="(now: string) => emit('update', now)"
      @touched="(now: string) => emit('touched', now)"
    />
    <Segmented
      :value="view"
      :options="['Parts', 'FEEL']"
      size="small"
      class="switch"
      :aria-label="`How to write: ${label}`"
      @change="(now) => (wanted = now as 'Parts' | 'FEEL')"
    />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.condition {
  position: relative;
  min-width: 0;
}
.switch {
  position: absolute;
  right: 0;
  bottom: 0;
}
.written {
  padding-bottom: 28px;
}
p {
  margin: 4px 0 0;
  font-size: 12.5px;
}
.none {
  margin: 0;
}
.unfinished {
  color: var(--sand);
}
.problem {
  color: var(--bad);
}
</style>
