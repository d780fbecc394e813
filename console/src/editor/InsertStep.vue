<script setup lang="ts">
import { AutoComplete, Input, Modal, Select, Textarea } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useModel } from '@/composables/model'
import { isStepFilled, STEPS, stepOptions, type StepInput } from './steps'

/** A step that is put together in a form, to be inserted where the cursor is. */
const props = defineProps<{ object?: string }>()
const emit = defineEmits<{ insert: [text: string]; left: [] }>()

const { objects, data: model } = useModel('OUTLINE')
const kind = ref(STEPS[0].kind)
const form = computed(() => STEPS.find((one) => one.kind === kind.value)!)
const values = ref<Record<string, string>>({})
watch(kind, () => (values.value = {}))
const object = computed(() => objects.value.find((one) => one.name === props.object))
const events = computed(() =>
  (model.value?.events ?? []).filter((one) => !one.inherent).map((one) => one.name),
)
const options = (of: StepInput) => stepOptions(of.kind, object.value, objects.value, events.value)
const set = (name: string, now: unknown) => (values.value = { ...values.value, [name]: String(now ?? '') })
const text = computed(() => (isStepFilled(form.value, values.value) ? form.value.text(values.value) : ''))
</script>

<template>
  <Modal
    open
    title="Insert a step"
    ok-text="Insert"
    :ok-button-props="{ disabled: !text }"
    @ok="emit('insert', text)"
    @cancel="emit('left')"
  >
    <div class="pairs">
      <span>What is done</span>
      <Select
        v-model:value="kind"
        :options="STEPS.map((one) => ({ value: one.kind, label: one.title }))"
        aria-label="Kind of step"
      />
      <span></span>
      <span class="quiet">{{ form.hint }}</span>
      <template v-for="one in form.inputs" :key="`${kind} ${one.name}`">
        <label :for="`step-${one.name}`">{{ one.label }}{{ one.required ? '' : ' (if needed)' }}</label>
        <AutoComplete
          v-if="options(one).length"
          :id="`step-${one.name}`"
          :value="values[one.name] ?? ''"
          :options="options(one)"
          :placeholder="one.hint"
          :aria-label="one.label"
          @change="(now) => set(one.name, now)"
        />
        <Textarea
          v-else-if="one.kind === 'record'"
          :id="`step-${one.name}`"
          :value="values[one.name] ?? ''"
          :placeholder="one.hint"
          class="mono"
          :auto-size="{ minRows: 2, maxRows: 8 }"
          @update:value="(now: string) => set(one.name, now)"
        />
        <Input
          v-else
          :id="`step-${one.name}`"
          :value="values[one.name] ?? ''"
          :placeholder="one.hint"
          :class="{ mono: one.kind === 'expression' }"
          @update:value="(now: string) => set(one.name, now)"
        />
      </template>
    </div>
    <pre v-if="text" tabindex="0" class="mono">{{ text }}</pre>
  </Modal>
</template>

<style scoped>
.pairs {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
}
pre {
  margin: 10px 0 0;
  padding: 8px;
  background: var(--sunken);
  border-radius: 6px;
  white-space: pre-wrap;
}
</style>
