<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import ComparisonRow from './ComparisonRow.vue'
import { choicesIn, itemName, listsIn, type Scope } from './operands'
import { missingIn, newComparison, newGroup, newItems, newText, type Draft } from './parts'

/** Conditions that belong together, with groups within. */
const props = defineProps<{ scope: Scope; disabled?: boolean; inner?: boolean }>()
const group = defineModel<Draft>({ required: true })

const choices = computed(() => choicesIn(props.scope))
const lists = computed(() => listsIn(props.scope))
const MEANINGS = [
  { value: 'all', label: 'all of these' },
  { value: 'any', label: 'one of these' },
  { value: 'not all', label: 'not all of these' },
  { value: 'none', label: 'none of these' },
]
const meaning = computed(() =>
  group.value.negated ? (group.value.all ? 'not all' : 'none') : group.value.all ? 'all' : 'any',
)
function mean(now: string) {
  group.value = { ...group.value, all: now === 'all' || now === 'not all', negated: now.startsWith('no') }
}
const QUANTITIES = [
  { value: 'EVERY', label: 'every one of' },
  { value: 'SOME', label: 'at least one of' },
  { value: 'NONE', label: 'none of' },
]

function set(at: number, now: Draft) {
  group.value = { ...group.value, parts: group.value.parts.map((one, place) => (place === at ? now : one)) }
}
const add = (part: Draft) => (group.value = { ...group.value, parts: [...group.value.parts, part] })
const remove = (at: number) =>
  (group.value = { ...group.value, parts: group.value.parts.filter((_, place) => place !== at) })
function addItems() {
  const list = lists.value[0]
  add(newItems(list.path, itemName(list.path, props.scope)))
}
const chooseList = (at: number, path: string) => set(at, newItems(path, itemName(path, props.scope)))
function scopeOf(part: Draft): Scope {
  const list = lists.value.find((one) => one.path === part.list)
  return {
    ...props.scope,
    items: [
      ...(props.scope.items ?? []),
      { name: part.name, fields: list?.fields ?? [], label: list?.label ?? part.list },
    ],
  }
}
</script>

<template>
  <div :class="['group', { inner }]">
    <div v-if="inner || group.parts.length > 1 || group.negated" class="meaning">
      <Select
        :value="meaning"
        :options="MEANINGS"
        :disabled="disabled"
        size="small"
        style="width: 150px"
        aria-label="How many of these must hold"
        @change="(now) => mean(String(now))"
      />
      <span class="quiet">{{ group.negated ? 'hold' : group.all ? 'hold' : 'holds' }}</span>
    </div>
    <div v-for="(part, at) in group.parts" :key="part.id" class="part">
      <div class="what">
        <ConditionGroup
          v-if="part.kind === 'GROUP'"
          :model-value="part"
          :scope="scope"
          :disabled="disabled"
          inner
          @update:model-value="(now: Draft) => set(at, now)"
        />
        <ComparisonRow
          v-else-if="part.kind === 'COMPARISON'"
          :model-value="part"
          :choices="choices"
          :disabled="disabled"
          @update:model-value="(now: Draft) => set(at, now)"
        />
        <div v-else-if="part.kind === 'ITEMS'" class="items">
          <Select
            :value="part.quantity"
            :options="QUANTITIES"
            :disabled="disabled"
            size="small"
            style="width: 130px"
            aria-label="Of how many"
            @change="(now) => set(at, { ...part, quantity: now as Draft['quantity'] })"
          />
          <Select
            :value="part.list"
            :options="lists.map((one) => ({ value: one.path, label: one.label }))"
            :disabled="disabled"
            size="small"
            style="width: 160px"
            aria-label="List"
            @change="(now) => chooseList(at, String(now))"
          />
          <span class="quiet">with</span>
          <ConditionGroup
            class="whole"
            :model-value="part.parts[0]"
            :scope="scopeOf(part)"
            :disabled="disabled"
            inner
            @update:model-value="(now: Draft) => set(at, { ...part, parts: [now] })"
          />
        </div>
        <Input
          v-else
          :value="part.text"
          :disabled="disabled"
          size="small"
          class="mono"
          placeholder="A condition in FEEL"
          aria-label="Condition as text"
          @update:value="(now: string) => set(at, { ...part, text: now })"
        />
        <div v-if="missingIn(part)" class="missing">{{ missingIn(part) }}</div>
      </div>
      <Button
        v-if="!disabled"
        type="text"
        size="small"
        :aria-label="`Take away condition ${at + 1}`"
        @click="remove(at)"
        ><DeleteOutlined
      /></Button>
    </div>
    <div v-if="!disabled" class="adding">
      <Button size="small" type="text" @click="add(newComparison())"><PlusOutlined /> Condition</Button>
      <Button v-if="lists.length" size="small" type="text" @click="addItems"
        ><PlusOutlined /> Over lines</Button
      >
      <Button size="small" type="text" @click="add(newGroup(!group.all, [newComparison()]))"
        ><PlusOutlined /> Group</Button
      >
      <Button size="small" type="text" @click="add(newText())"><PlusOutlined /> Text</Button>
    </div>
  </div>
</template>

<style scoped>
.group {
  display: grid;
  gap: 5px;
  min-width: 0;
}
.inner {
  border-left: 2px solid var(--line);
  padding-left: 8px;
}
.meaning,
.part,
.items,
.adding {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
}
.part {
  flex-wrap: nowrap;
  align-items: flex-start;
}
.what {
  flex: 1;
  min-width: 0;
}
.whole {
  flex-basis: 100%;
}
.missing {
  color: var(--sand);
  font-size: 12.5px;
  margin-top: 2px;
}
.adding {
  margin-top: 3px;
}
.adding :deep(.ant-btn) {
  color: var(--quiet);
  padding-left: 4px;
}
</style>
