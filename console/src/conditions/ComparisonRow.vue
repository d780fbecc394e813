<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { Operand, Relation } from '@/api/conditions'
import OperandInput from './OperandInput.vue'
import { emptyValue, familyOf, firstRelation, relationsFor, valueOf, type Choice } from './operands'
import { NEEDED, type Draft } from './parts'

/** A field, how it stands to something, and what that is. */
const props = defineProps<{ choices: Choice[]; disabled?: boolean }>()
const draft = defineModel<Draft>({ required: true })

const WHOLE = ['EQUAL', 'UNEQUAL', 'ONE_OF', 'NONE_OF']
const chosen = computed(() => props.choices.find((one) => one.value === valueOf(draft.value.of)))
/** Fields by where they are; one that is not known, or an expression, stands as it is written. */
const options = computed(() => {
  const groups = new Map<string, { value: string; label: string; title: string; full: string }[]>()
  for (const one of props.choices) {
    const title = one.operand.kind === 'FIELD' ? one.value : one.label
    groups.set(one.group, [
      ...(groups.get(one.group) ?? []),
      { value: one.value, label: one.label, title, full: one.full },
    ])
  }
  const all = [...groups].map(([label, inner]) => ({ label, options: inner }))
  const written = draft.value.of?.text
  return written && !chosen.value
    ? [
        {
          label: 'As it is written',
          options: [{ value: written, label: written, title: written, full: written }],
        },
        ...all,
      ]
    : all
})
const relations = computed(() => relationsFor(chosen.value, draft.value.relation))
const isList = computed(() => ['ONE_OF', 'NONE_OF'].includes(draft.value.relation))
/** Codes are ticked in one list instead of one after the other. */
const ticks = computed(
  () =>
    isList.value &&
    familyOf(chosen.value) === 'choice' &&
    draft.value.values.every((one) => one.kind === 'VALUE'),
)

function choose(value: string) {
  const choice = props.choices.find((one) => one.value === value)
  if (!choice) return
  const keeps = familyOf(choice) === familyOf(chosen.value) && choice.field?.type !== 'choice'
  const relation = keeps && draft.value.of ? draft.value.relation : firstRelation(choice)
  draft.value = {
    ...draft.value,
    of: choice.operand,
    relation,
    values: keeps ? draft.value.values : filled([], relation, choice),
  }
}
function relate(relation: Relation) {
  draft.value = { ...draft.value, relation, values: filled(draft.value.values, relation, chosen.value) }
}
function filled(values: Operand[], relation: Relation, choice: Choice | undefined): Operand[] {
  const many = ['ONE_OF', 'NONE_OF'].includes(relation)
  if (many && familyOf(choice) === 'choice' && !values.length) return []
  const next = many ? [...values] : values.slice(0, NEEDED[relation])
  while (next.length < NEEDED[relation]) next.push(emptyValue(choice))
  return next
}
function setValue(at: number, now: Operand) {
  draft.value = { ...draft.value, values: draft.value.values.map((one, place) => (place === at ? now : one)) }
}
function setTicks(now: string[]) {
  draft.value = {
    ...draft.value,
    values: now.map((text) => ({ kind: 'VALUE' as const, type: 'TEXT' as const, text })),
  }
}
/** By label or path; headings are not looked for. */
function filter(typed: string, option?: { label?: unknown; title?: unknown; options?: unknown }) {
  const text = `${String(option?.label)} ${String(option?.title ?? '')}`
  return !option?.options && text.toLowerCase().includes(typed.toLowerCase())
}
</script>

<template>
  <div class="comparison">
    <Select
      :value="valueOf(draft.of) ?? draft.of?.text"
      :options="options"
      :filter-option="filter"
      option-label-prop="full"
      :disabled="disabled"
      show-search
      size="small"
      placeholder="Field …"
      class="field"
      :dropdown-match-select-width="300"
      aria-label="Field of the condition"
      @change="(now) => choose(String(now))"
    />
    <Select
      :value="draft.relation"
      :options="relations"
      :disabled="disabled"
      size="small"
      class="relation"
      aria-label="How it stands"
      @change="(now) => relate(now as Relation)"
    />
    <Select
      v-if="ticks"
      :value="draft.values.map((one) => one.text ?? '')"
      mode="multiple"
      :options="(chosen?.field?.choices ?? []).map((one) => ({ value: one.code, label: one.label }))"
      :disabled="disabled"
      size="small"
      placeholder="Choose …"
      class="many"
      aria-label="Values"
      @change="(now) => setTicks(now as string[])"
    />
    <template v-else>
      <template v-for="(value, at) in draft.values" :key="at">
        <span v-if="at" class="quiet">{{ isList ? 'or' : 'and' }}</span>
        <OperandInput
          :model-value="value"
          :of="chosen"
          :choices="choices"
          :label="at ? `Value ${at + 1}` : 'Value'"
          :disabled="disabled"
          :whole="WHOLE.includes(draft.relation)"
          @update:model-value="(now: Operand) => setValue(at, now)"
        />
      </template>
      <a
        v-if="isList && !disabled"
        href="#"
        @click.prevent="draft = { ...draft, values: [...draft.values, emptyValue(chosen)] }"
        >or another</a
      >
    </template>
  </div>
</template>

<style scoped>
.comparison {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  min-width: 0;
}
.field {
  width: 190px;
}
.relation {
  width: 138px;
}
.many {
  min-width: 220px;
}
</style>
