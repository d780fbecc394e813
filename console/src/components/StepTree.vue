<script setup lang="ts">
import type { Step } from '@/api/logic'
import { useModel } from '@/composables/model'
import { placeOfStep } from './ran'

const props = defineProps<{ steps: Step[]; chosen?: number }>()
const emit = defineEmits<{ choose: [at: number] }>()

const isBad = (step: Step) =>
  step.kind === 'REFUSED' || (step.kind === 'CHECK' && step.result !== 'true') || step.kind === 'WARNING'
const isQuiet = (step: Step) => step.result === 'false' && (step.kind === 'RULE' || step.kind === 'CONDITION')
const { objects } = useModel()
const ran = (step: Step) => placeOfStep(step, objects.value)
const word = (step: Step) => (step.title === 'then' ? '' : step.kind.toLowerCase())
const milliseconds = (step: Step) => (step.micros / 1000).toFixed(1)
const later = (at: number) => props.chosen !== undefined && at > props.chosen
</script>

<template>
  <ol class="steps">
    <li
      v-for="(step, at) in steps"
      :key="at"
      :class="{ bad: isBad(step), quiet: isQuiet(step), here: chosen === at, later: later(at) }"
      :style="{ paddingLeft: `${step.depth * 18 + 8}px` }"
      @click="emit('choose', at)"
    >
      <span class="kind">{{ word(step) }}</span>
      <span class="what">
        <RouterLink
          v-if="ran(step)"
          :to="{ path: `/model/${ran(step)!.object}`, query: { at: ran(step)!.name } }"
          >{{ step.title }}</RouterLink
        >
        <template v-else>{{ step.title }}</template>
        <code v-if="step.detail">{{ step.detail }}</code>
      </span>
      <span class="result mono">{{ step.result }}</span>
      <span class="time">{{ milliseconds(step) }} ms</span>
    </li>
  </ol>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 12.5px;
}
li {
  display: grid;
  grid-template-columns: 74px minmax(0, 1fr) minmax(0, auto) 62px;
  gap: 8px;
  padding: 3px 8px;
  border-left: 3px solid transparent;
  cursor: default;
}
li:hover {
  background: var(--sunken);
}
.kind {
  color: var(--quiet);
}
.what {
  overflow-wrap: anywhere;
}
code {
  color: var(--quiet);
  margin-left: 6px;
}
.result {
  max-width: 240px;
  text-align: right;
  overflow-wrap: anywhere;
}
.time {
  color: var(--quiet);
  text-align: right;
  white-space: nowrap;
}
.bad {
  border-left-color: var(--bad);
}
.bad .result,
.bad .what {
  color: var(--bad);
}
.here {
  background: var(--action-soft);
  border-left-color: var(--action);
}
.later {
  opacity: 0.4;
}
</style>
