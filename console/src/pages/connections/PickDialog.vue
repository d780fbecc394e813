<script setup lang="ts">
import { Alert, Button, Input, Modal, Segmented } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { tryOperation, type OperationView } from '@/api/connections'
import { answerRows, madeUp, type AnswerRow } from '@/editor/answerRows'
import { written } from '@/editor/connectionFile'

/** Tries an operation with real values, and maps it by picking places of what it answers. */
const props = defineProps<{
  operation: OperationView
  setting: string
  /** What is picked: the list, code and label of a lookup, or what a call gives. */
  of: 'lookup' | 'call'
  picked: Record<string, string | undefined>
}>()
const emit = defineEmits<{ pick: [place: Record<string, string>]; left: [] }>()

const values = ref<Record<string, string>>({})
const busy = ref(false)
const answer = ref<unknown>()
const came = ref(false)
const problem = ref('')
const took = ref(0)

async function ask() {
  busy.value = true
  problem.value = ''
  try {
    const tried = await tryOperation(
      props.setting,
      written(props.operation),
      props.operation.parameters
        .filter((one) => values.value[one.name])
        .map((one) => ({ name: one.name, place: one.place, value: values.value[one.name] })),
    )
    took.value = tried.millis
    came.value = !tried.message
    problem.value = tried.message ?? ''
    if (!tried.message) answer.value = tried.answer
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}

/** What is shown to pick from: what came, or else what the contract says. */
const rows = computed(() => {
  if (came.value) return answerRows(answer.value)
  return props.operation.answer ? answerRows(madeUp(props.operation.answer)) : []
})

const ROLES = { lookup: ['items', 'key', 'label'], call: ['at'] } as const
const WORDS: Record<string, string> = {
  items: 'The list',
  key: 'The code',
  label: 'The label',
  at: 'What it gives',
}
const role = ref<string>(ROLES[props.of][0])
const place = ref<Record<string, string>>(
  Object.fromEntries(ROLES[props.of].map((one) => [one, props.picked[one] ?? ''])),
)
const dotted = (path: string[]) => path.join('.')

/** Whether a place can be what is picked now. */
function fits(row: AnswerRow): boolean {
  if (role.value === 'items') return row.isList && !row.list
  if (role.value === 'at') return !row.list
  return (
    row.list !== undefined && dotted(row.list) === place.value.items && !row.isList && row.path.length > 0
  )
}
const isPicked = (row: AnswerRow) =>
  dotted(row.path) === place.value[role.value] && fits(row) && (row.path.length > 0 || row.isList)

function pick(row: AnswerRow) {
  place.value = { ...place.value, [role.value]: dotted(row.path) }
  const roles = ROLES[props.of] as readonly string[]
  const next = roles[roles.indexOf(role.value) + 1]
  if (next) role.value = next
}
</script>

<template>
  <Modal
    open
    :title="written(operation)"
    width="720px"
    ok-text="Take these places"
    @ok="emit('pick', place)"
    @cancel="emit('left')"
  >
    <p v-if="operation.summary" class="quiet">{{ operation.summary }}</p>
    <form class="values" @submit.prevent="ask">
      <label v-for="one in operation.parameters" :key="one.name">
        <span
          ><code>{{ one.name }}</code> <span class="quiet">{{ one.type }}, {{ one.place }}</span></span
        >
        <Input
          v-model:value="values[one.name]"
          size="small"
          :placeholder="one.required ? 'needed' : 'left out'"
          :aria-label="one.name"
        />
      </label>
      <Button html-type="submit" :loading="busy">Try it</Button>
    </form>
    <Alert v-if="operation.method !== 'GET'" type="warning" message="This may change something outside." />
    <Alert v-if="problem" type="error" show-icon :message="problem" />
    <p class="source" data-test="source">
      <template v-if="came">What came in {{ took }} ms. Click on</template>
      <template v-else-if="rows.length">What the contract says; try it to see real values. Click on</template>
      <template v-else>The contract does not say what comes; try it.</template>
    </p>
    <Segmented
      v-if="rows.length"
      v-model:value="role"
      :options="
        ROLES[of].map((one) => ({
          value: one,
          label: place[one] ? `${WORDS[one]}: ${place[one]}` : WORDS[one],
        }))
      "
    />
    <ul class="rows">
      <li v-for="(row, at) in rows" :key="at" :style="{ paddingLeft: `${row.depth * 18}px` }">
        <button
          type="button"
          :disabled="!fits(row)"
          :class="{ picked: isPicked(row) }"
          :data-test="[...(row.list ?? []), ...(row.list ? ['[]'] : []), ...row.path].join('.')"
          @click="pick(row)"
        >
          <code>{{ row.name }}</code> <span class="quiet">{{ row.sample }}</span>
        </button>
      </li>
    </ul>
  </Modal>
</template>

<style scoped>
.values {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin-bottom: 8px;
}
.values label {
  display: grid;
  gap: 2px;
  font-size: 12.5px;
  min-width: 180px;
}
.source {
  margin: 10px 0 4px;
}
.rows {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
  max-height: 320px;
  overflow: auto;
}
.rows button {
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  font: inherit;
  color: var(--text);
  padding: 1px 6px;
  text-align: left;
  cursor: pointer;
}
.rows button:disabled {
  color: var(--quiet);
  cursor: default;
}
.rows button:not(:disabled):hover {
  background: var(--sunken);
}
.rows .picked {
  border-color: var(--action);
}
</style>
