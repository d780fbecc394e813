<script setup lang="ts">
import { Button } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { FunctionTried } from '@/api/client'
import { tryFunction } from '@/api/functions'
import { ApiProblem } from '@/api/http'
import type { Values } from '@/api/records'
import ArgumentInputs from '@/components/ArgumentInputs.vue'
import RecordPicker from '@/components/RecordPicker.vue'
import StepTree from '@/components/StepTree.vue'
import { useModel } from '@/composables/model'

/** Tries a function of the draft. Nothing is kept, so it is run only when asked: it may do much. */
const props = defineProps<{ object: string; name: string }>()

const { objects } = useModel('DRAFT')
const definition = computed(() =>
  objects.value.find((one) => one.name === props.object)?.functions.find((one) => one.name === props.name),
)
const key = ref<string | null>(null)
const values = ref<Values>({})
const tried = ref<FunctionTried>()
const problem = ref('')
const busy = ref(false)
watch(
  () => props.name,
  () => {
    values.value = {}
    tried.value = undefined
    problem.value = ''
  },
)
const messages = computed(() =>
  Object.fromEntries((tried.value?.faults ?? []).map((one) => [one.path, one.message])),
)
const ready = computed(() => !!definition.value && (!definition.value.onRecord || !!key.value))
const shown = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value, null, 1))

async function run() {
  busy.value = true
  problem.value = ''
  try {
    tried.value = await tryFunction(props.object, props.name, key.value ?? undefined, values.value)
  } catch (error) {
    tried.value = undefined
    problem.value = error instanceof ApiProblem ? error.message : String(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <p v-if="!definition" class="quiet">{{ name }} can be tried when the draft has no errors.</p>
  <template v-else>
    <strong class="mono">{{ object }}.{{ name }}</strong>
    <RecordPicker v-if="definition.onRecord" :to="object" :value="key" @update="(now) => (key = now)" />
    <div>
      <ArgumentInputs
        :parameters="definition.parameters"
        :values="values"
        :messages="messages"
        @update="(now) => (values = now)"
      />
    </div>
    <Button type="primary" :disabled="!ready" :loading="busy" @click="run">Try it</Button>
    <p v-if="!ready" class="quiet">Choose a record to try this on; nothing is kept.</p>
    <div v-if="problem" class="bad">{{ problem }}</div>
    <template v-if="tried">
      <div v-for="(fault, at) in tried.faults" :key="`f${at}`" class="bad">{{ fault.message }}</div>
      <div v-if="tried.returns" class="value mono" data-test="tried">{{ shown(tried.result) }}</div>
      <div v-else-if="!tried.faults.length" class="quiet">It gives nothing back.</div>
      <div v-for="(one, at) in tried.warnings" :key="`w${at}`" class="warning">{{ one.message }}</div>
      <div v-for="(note, at) in tried.notes" :key="`n${at}`" class="quiet">{{ note }}</div>
      <template v-if="tried.differences.length">
        <h3>What would change</h3>
        <div v-for="(one, at) in tried.differences" :key="`d${at}`" class="difference">
          <strong>{{ one.object }} {{ one.key }}</strong> <span class="quiet">{{ one.what }}</span>
          <div v-for="change in one.changes" :key="change.path" class="change">
            <span class="mono">{{ change.path }}</span>
            <span class="quiet"> {{ change.before ?? 'empty' }} → </span>{{ change.after ?? 'empty' }}
          </div>
        </div>
      </template>
      <template v-if="tried.events.length">
        <h3>Events it would raise</h3>
        <div v-for="(one, at) in tried.events" :key="`e${at}`">
          <strong>{{ one.name }}</strong> <code class="quiet">{{ JSON.stringify(one.data) }}</code>
        </div>
      </template>
      <h3>What happens</h3>
      <StepTree :steps="tried.steps" />
    </template>
  </template>
</template>

<style scoped>
.value {
  font-size: 16px;
  background: var(--action-soft);
  border-radius: 6px;
  padding: 6px 10px;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
.bad {
  color: var(--bad);
}
.warning {
  color: var(--sand);
}
.difference {
  border-left: 3px solid var(--line);
  padding-left: 8px;
}
.change .mono {
  margin-right: 6px;
}
.change {
  font-size: 12.5px;
  overflow-wrap: anywhere;
}
h3 {
  font-size: 13px;
  margin: 6px 0 0;
}
</style>
