<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { LogicText, Role } from '@/api/logic'
import { useModel } from '@/composables/model'
import ConditionInput from '@/conditions/ConditionInput.vue'
import LogicEditor from '@/editor/LogicEditor.vue'
import { LOGIC_KEYS, readLogic, setFieldLogic, type FieldLogic, type LogicKey } from '@/editor/logicFile'

const props = defineProps<{ text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; chosen: [logic: LogicText] }>()

const WORDS: Record<LogicKey, { label: string; role: Role; hint: string }> = {
  formula: { label: 'Worked out as', role: 'FORMULA', hint: 'sum(lines.net)' },
  requiredWhen: { label: 'Required when', role: 'CONDITION', hint: 'state = "Open"' },
  readOnlyWhen: { label: 'Read-only when', role: 'CONDITION', hint: 'state = "Done"' },
  hiddenWhen: { label: 'Hidden when', role: 'CONDITION', hint: 'not(needsApproval)' },
  offer: { label: 'Offers records with', role: 'OFFER', hint: 'maxWeight >= this.item.weight' },
}

const { objects } = useModel('OUTLINE')
const rows = computed(() => readLogic(props.text))
const added = ref<string[]>([])
const idOf = (row: FieldLogic, key: LogicKey) => `${row.part ?? ''}/${row.name}/${key}`
const shown = computed(() =>
  rows.value.flatMap((row) =>
    LOGIC_KEYS.filter((key) => row[key] !== undefined || added.value.includes(idOf(row, key))).map((key) => ({
      row,
      key,
    })),
  ),
)
const choices = computed(() =>
  rows.value.map((row) => {
    const name = row.part ? `${row.part}.${row.name}` : row.name
    return {
      label: name,
      options: LOGIC_KEYS.filter(
        (key) => row[key] === undefined && (key !== 'offer' || row.type === 'reference'),
      ).map((key) => ({ value: idOf(row, key), label: `${name}: ${WORDS[key].label.toLowerCase()}` })),
    }
  }),
)
const textOf = (row: FieldLogic, key: LogicKey): LogicText => ({
  role: WORDS[key].role,
  object: props.object,
  part: row.part,
  field: row.name,
  text: row[key] ?? '',
})
</script>

<template>
  <div class="list">
    <p v-if="!shown.length" class="quiet">
      No field works itself out yet. Choose one below: a formula keeps a total right whatever changes, a
      condition says when a field is required, read-only or hidden.
    </p>
    <div v-for="{ row, key } in shown" :key="idOf(row, key)" class="one">
      <div class="head">
        <code>{{ row.part ? `${row.part}.` : '' }}{{ row.name }}</code>
        <span class="quiet">{{ WORDS[key].label.toLowerCase() }}</span>
      </div>
      <component
        :is="key === 'formula' ? LogicEditor : ConditionInput"
        :text="row[key] ?? ''"
        :role="WORDS[key].role"
        :objects="key === 'formula' ? undefined : objects"
        :object="object"
        :part="row.part"
        :field="row.name"
        :label="`${WORDS[key].label} of ${row.name}`"
        :placeholder="WORDS[key].hint"
        :read-only="readOnly"
        @update="(now: string) => emit('update', setFieldLogic(text, row, key, now))"
        @touched="(now: string) => emit('chosen', { ...textOf(row, key), text: now })"
      />
    </div>
    <Select
      v-if="!readOnly"
      :value="undefined"
      :options="choices"
      show-search
      option-filter-prop="label"
      placeholder="Add a formula or a condition to a field …"
      style="width: 340px"
      aria-label="Add a formula or a condition"
      @change="(id) => added.push(String(id))"
    />
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: 10px;
}
.head {
  display: flex;
  gap: 8px;
  margin-bottom: 3px;
}
</style>
