<script setup lang="ts">
import { Alert, Button, Modal, Progress, Tag } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { CallResults, ObjectFunctionView } from '@/api/client'
import { callFunction, callOnEach, type Called } from '@/api/functions'
import { ApiProblem } from '@/api/http'
import type { Values } from '@/api/records'
import ArgumentInputs from './ArgumentInputs.vue'

/** Asks for the arguments of a function and calls it on one record or on each of many. */
const props = defineProps<{ object: string; definition: ObjectFunctionView; keys: string[] }>()
const emit = defineEmits<{ left: []; done: [] }>()

const values = ref<Values>({})
const called = ref<Called>()
const results = ref<CallResults>()
const problem = ref('')
const messages = ref<Record<string, string>>({})
const busy = ref(false)
const isOver = computed(() => !!called.value || !!results.value)
watch(
  () => props.definition,
  () => (values.value = {}),
)
const shown = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value, null, 1))

/** A few at a time, so that it is seen how far it has come. */
const AT_ONCE = 20
const progress = ref(0)
async function runOnEach() {
  const whole: CallResults = { done: 0, failed: 0, results: [] }
  for (let from = 0; from < props.keys.length; from += AT_ONCE) {
    progress.value = from
    const keys = props.keys.slice(from, from + AT_ONCE)
    try {
      const some = await callOnEach(props.object, props.definition.name, keys, values.value)
      whole.done += some.done
      whole.failed += some.failed
      whole.results.push(...some.results)
    } catch (error) {
      // What was done before stays done, so it is still shown.
      whole.failed += keys.length
      whole.results.push(
        ...keys.map((key) => ({ key, done: false, warnings: [], problem: (error as Error).message })),
      )
    }
  }
  results.value = whole
}

async function run() {
  if (isOver.value) {
    emit('left')
    return
  }
  busy.value = true
  problem.value = ''
  messages.value = {}
  try {
    if (props.keys.length > 1) {
      await runOnEach()
    } else {
      called.value = await callFunction(props.object, props.definition.name, props.keys[0], values.value)
    }
    emit('done')
  } catch (error) {
    if (error instanceof ApiProblem) {
      messages.value = error.byField()
      const isShown = Object.keys(messages.value).every((name) =>
        props.definition.parameters.some((one) => one.name === name),
      )
      problem.value = Object.keys(messages.value).length && isShown ? '' : error.message
    } else {
      problem.value = String(error)
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    :title="keys.length > 1 ? `${definition.label} on ${keys.length} records` : definition.label"
    @cancel="emit('left')"
  >
    <template v-if="!isOver">
      <p v-if="definition.describe" class="quiet">{{ definition.describe }}</p>
      <Alert v-if="problem" type="error" show-icon :message="problem" class="problem" />
      <ArgumentInputs
        :parameters="definition.parameters"
        :values="values"
        :messages="messages"
        @update="(now) => (values = now)"
      />
    </template>
    <template v-else-if="called">
      <div v-if="called.returns" class="value" data-test="result">{{ shown(called.result) }}</div>
      <p v-else>Done.</p>
      <Alert
        v-for="(one, at) in called.warnings"
        :key="at"
        type="warning"
        show-icon
        :message="one"
        class="problem"
      />
    </template>
    <template v-else-if="results">
      <p data-test="results">{{ results.done }} done, {{ results.failed }} refused.</p>
      <div class="results">
        <template v-for="one in results.results" :key="one.key">
          <code>{{ one.key }}</code>
          <Tag :color="one.done ? 'cyan' : 'red'">{{ one.done ? 'done' : 'refused' }}</Tag>
          <span>{{
            one.problem ?? [one.result === undefined ? '' : shown(one.result), ...one.warnings].join(' ')
          }}</span>
        </template>
      </div>
    </template>
    <Progress v-if="busy && keys.length > AT_ONCE" :percent="Math.round((100 * progress) / keys.length)" />
    <template #footer>
      <Button v-if="!isOver" @click="emit('left')">Cancel</Button>
      <Button type="primary" :loading="busy" @click="run">{{ isOver ? 'Close' : definition.label }}</Button>
    </template>
  </Modal>
</template>

<style scoped>
.problem {
  margin-bottom: 10px;
}
.value {
  font-size: 18px;
  background: var(--action-soft);
  border-radius: 6px;
  padding: 8px 12px;
  margin-bottom: 10px;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
.results {
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  gap: 5px 8px;
  align-items: baseline;
  max-height: 45vh;
  overflow: auto;
}
</style>
