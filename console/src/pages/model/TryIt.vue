<script setup lang="ts">
import { Segmented } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { allFunctions, tryLogic, type LogicText } from '@/api/logic'
import RecordPicker from '@/components/RecordPicker.vue'
import StepTree from '@/components/StepTree.vue'
import { useLatest } from '@/composables/latest'
import TryFunction from './TryFunction.vue'

const props = defineProps<{ object: string; logic?: LogicText; isReleased: boolean }>()

const view = ref<'Try it' | 'Functions'>('Try it')
const key = ref<string | null>(null)
const search = ref('')
const { data, error, loading, run } = useLatest((text: LogicText) => tryLogic(text, key.value ?? undefined))
const functions = useQuery({ queryKey: ['functions'], queryFn: allFunctions, staleTime: Infinity })
const found = computed(() => {
  const wanted = search.value.toLowerCase()
  return (functions.data.value ?? []).filter(
    (one) => !wanted || one.name.includes(wanted) || one.describe.toLowerCase().includes(wanted),
  )
})

let timer: ReturnType<typeof setTimeout> | undefined
const PAUSE = 350
watch(
  [() => props.logic, key],
  () => {
    clearTimeout(timer)
    const logic = props.logic
    if (!logic?.text.trim() || logic.role === 'BODY' || !key.value || !props.isReleased) return
    timer = setTimeout(() => void run(logic), PAUSE)
  },
  { deep: true },
)
const answer = computed(() => data.value)
</script>

<template>
  <div class="try">
    <Segmented v-model:value="view" :options="['Try it', 'Functions']" />
    <template v-if="view === 'Try it'">
      <p v-if="!isReleased" class="quiet">
        There are no records of {{ object }} yet: release it first, then logic can be tried on one.
      </p>
      <TryFunction v-else-if="logic?.role === 'BODY'" :object="object" :name="logic.field!" />
      <template v-else>
        <RecordPicker :to="object" :value="key" @update="(now) => (key = now)" />
        <p v-if="!logic" class="quiet">Click into a condition, formula or rule to try it on that record.</p>
        <p v-else-if="!key" class="quiet">Choose a record to try this on; nothing is kept.</p>
        <template v-else>
          <code class="text">{{ logic.text }}</code>
          <div v-if="error" class="bad">{{ error.message }}</div>
          <template v-else-if="answer">
            <div v-for="(one, at) in answer.findings" :key="at" :class="one.warning ? 'quiet' : 'bad'">
              {{ one.message }}
            </div>
            <div v-if="answer.value" class="value mono" data-test="tried" :class="{ stale: loading }">
              {{ answer.value }}
            </div>
            <div v-for="(note, at) in answer.notes" :key="`n${at}`" class="quiet">{{ note }}</div>
            <div v-for="(fault, at) in answer.faults" :key="`f${at}`" class="bad">{{ fault.message }}</div>
            <template v-if="answer.steps.length && logic.role === 'THEN'">
              <h3>What happens</h3>
              <StepTree :steps="answer.steps" />
            </template>
          </template>
        </template>
      </template>
    </template>
    <template v-else>
      <input v-model="search" class="search" placeholder="Search functions …" aria-label="Search functions" />
      <div v-for="one in found" :key="one.name" class="function">
        <code>{{ one.forms[0] }}</code>
        <div>{{ one.describe }}</div>
        <code v-for="example in one.examples.slice(0, 1)" :key="example.expression" class="quiet"
          >{{ example.expression }} = {{ example.result }}</code
        >
      </div>
    </template>
  </div>
</template>

<style scoped>
.try {
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px;
  overflow: auto;
  font-size: 13px;
}
.text {
  white-space: pre-wrap;
  color: var(--quiet);
  border-left: 3px solid var(--line);
  padding-left: 8px;
}
.value {
  font-size: 16px;
  background: var(--action-soft);
  border-radius: 6px;
  padding: 6px 10px;
  overflow-wrap: anywhere;
}
.stale {
  opacity: 0.5;
}
.bad {
  color: var(--bad);
}
.search {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 5px 10px;
  background: var(--surface);
  color: var(--text);
}
.function {
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
h3 {
  font-size: 13px;
  margin: 6px 0 0;
}
</style>
