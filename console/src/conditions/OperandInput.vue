<script setup lang="ts">
import { Input, InputNumber, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { Operand } from '@/api/conditions'
import LookupPicker from '@/components/LookupPicker.vue'
import RecordPicker from '@/components/RecordPicker.vue'
import YesNo from '@/components/YesNo.vue'
import { decimalSign } from '@/composables/format'
import { emptyValue, familyOf, shifted, type Choice } from './operands'

/** One value that a field is compared with: a fixed one, another field, a day seen from today, or an expression. */
const props = defineProps<{
  /** What it is compared with. */
  of: Choice | undefined
  choices: Choice[]
  label: string
  disabled?: boolean
  /** Whether it is compared as a whole, and not by a part of it. */
  whole?: boolean
}>()
const SIGN = decimalSign()
const operand = defineModel<Operand>({ required: true })

const family = computed(() => familyOf(props.of))
const kinds = computed(() => [
  { value: 'VALUE', label: 'value' },
  ...(family.value === 'time' && props.of?.field?.type !== 'duration' && props.of?.field?.type !== 'time'
    ? [{ value: 'RELATIVE', label: 'seen from today' }]
    : []),
  { value: 'FIELD', label: 'field' },
  { value: 'EXPRESSION', label: 'expression' },
  ...(operand.value.kind === 'TOTAL' ? [{ value: 'TOTAL', label: 'total' }] : []),
])
function become(kind: Operand['kind']) {
  if (kind === operand.value.kind) return
  if (kind === 'VALUE') operand.value = emptyValue(props.of)
  else if (kind === 'RELATIVE')
    operand.value = { kind, exact: props.of?.field?.type === 'date-time', amount: 0, unit: 'DAYS' }
  else operand.value = { kind, text: '' }
}
const text = computed(() => operand.value.text ?? '')
const set = (now: string) => (operand.value = { ...operand.value, text: now })
const isPercent = computed(() => props.of?.field?.type === 'percent')
const setNumber = (now: unknown) => {
  const written = now === null || now === undefined ? '' : String(now)
  set(isPercent.value && written ? shifted(written, -2) : written)
}
const shownNumber = computed(() => (isPercent.value && text.value ? shifted(text.value, 2) : text.value))

const MOMENT = /^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2})/
const local = computed(() => {
  const date = new Date(text.value)
  if (Number.isNaN(date.getTime())) return MOMENT.exec(text.value)?.[1] ?? ''
  return new Date(date.getTime() - date.getTimezoneOffset() * 60000).toISOString().slice(0, 16)
})
const setMoment = (now: string) => set(now ? new Date(now).toISOString().replace('.000Z', 'Z') : '')

const UNITS = [
  { value: 'HOURS', label: 'hours' },
  { value: 'DAYS', label: 'days' },
  { value: 'WEEKS', label: 'weeks' },
  { value: 'MONTHS', label: 'months' },
  { value: 'YEARS', label: 'years' },
]
const WAYS = [
  { value: 'later', label: 'from now' },
  { value: 'earlier', label: 'ago' },
]
const way = computed(() => ((operand.value.amount ?? 0) < 0 ? 'earlier' : 'later'))
function setAmount(amount: number, now = way.value) {
  const size = Math.abs(Math.trunc(amount) || 0)
  operand.value = { ...operand.value, amount: now === 'earlier' ? -size : size }
}
const sameKind = computed(() =>
  props.choices
    .filter((one) => one.operand.kind === 'FIELD' && familyOf(one) === family.value)
    .map((one) => ({ value: one.value, label: one.full })),
)
const options = computed(() =>
  (props.of?.field?.choices ?? []).map((one) => ({ value: one.code, label: one.label })),
)
</script>

<template>
  <span class="operand">
    <Select
      :value="operand.kind"
      :options="kinds"
      :disabled="disabled"
      size="small"
      class="kind"
      :aria-label="`Kind of ${label}`"
      @change="(now) => become(now as Operand['kind'])"
    />
    <template v-if="operand.kind === 'VALUE'">
      <Select
        v-if="family === 'choice'"
        :value="text || undefined"
        :options="options"
        :disabled="disabled"
        size="small"
        placeholder="Choose …"
        class="wide"
        :aria-label="label"
        @change="(now) => set(String(now ?? ''))"
      />
      <LookupPicker
        v-else-if="of?.field?.lookup && whole"
        :lookup="of.field.lookup"
        :value="text || null"
        :label="label"
        :disabled="disabled"
        class="wide"
        @update="(now) => set(now ?? '')"
      />
      <YesNo
        v-else-if="family === 'boolean'"
        :value="text === 'true'"
        :disabled="disabled"
        :label="label"
        class="wide"
        @update="(now) => set(String(now))"
      />
      <RecordPicker
        v-else-if="family === 'reference'"
        :to="of!.field!.to!"
        :value="text || null"
        :label="label"
        :disabled="disabled"
        class="wide"
        @update="(now) => set(now ?? '')"
      />
      <InputNumber
        v-else-if="operand.type === 'NUMBER'"
        :value="shownNumber"
        string-mode
        :decimal-separator="SIGN"
        :disabled="disabled"
        :addon-after="isPercent ? '%' : undefined"
        size="small"
        class="wide"
        :aria-label="label"
        @change="setNumber"
      />
      <Input
        v-else-if="of?.field?.type === 'date' || of?.field?.type === 'time'"
        :type="of.field.type"
        :value="text"
        :disabled="disabled"
        size="small"
        class="wide"
        :aria-label="label"
        @update:value="(now: string) => set(now)"
      />
      <Input
        v-else-if="of?.field?.type === 'date-time'"
        type="datetime-local"
        :value="local"
        :disabled="disabled"
        size="small"
        class="wide"
        :aria-label="label"
        @update:value="(now: string) => setMoment(now)"
      />
      <Input
        v-else
        :value="text"
        :disabled="disabled"
        :placeholder="of?.field?.type === 'duration' ? 'P1DT6H' : ''"
        size="small"
        class="wide"
        :aria-label="label"
        @update:value="(now: string) => set(now)"
      />
    </template>
    <template v-else-if="operand.kind === 'RELATIVE'">
      <InputNumber
        :value="Math.abs(operand.amount ?? 0)"
        :min="0"
        :precision="0"
        :disabled="disabled"
        size="small"
        style="width: 64px"
        :aria-label="`How many, for ${label}`"
        @change="(now) => setAmount(Number(now))"
      />
      <template v-if="operand.amount">
        <Select
          :value="operand.unit"
          :options="UNITS"
          :disabled="disabled"
          size="small"
          style="width: 88px"
          :aria-label="`Unit of ${label}`"
          @change="(now) => (operand = { ...operand, unit: now as Operand['unit'] })"
        />
        <Select
          :value="way"
          :options="WAYS"
          :disabled="disabled"
          size="small"
          style="width: 96px"
          :aria-label="`Way of ${label}`"
          @change="(now) => setAmount(operand.amount ?? 0, String(now) as 'later' | 'earlier')"
        />
      </template>
      <span v-else class="quiet">days: {{ operand.exact ? 'now' : 'today' }}</span>
    </template>
    <Select
      v-else-if="operand.kind === 'FIELD'"
      :value="text || undefined"
      :options="sameKind"
      :disabled="disabled"
      show-search
      option-filter-prop="label"
      size="small"
      placeholder="Choose a field …"
      class="wide"
      :aria-label="label"
      @change="(now) => set(String(now ?? ''))"
    />
    <Input
      v-else
      :value="text"
      :disabled="disabled || operand.kind === 'TOTAL'"
      size="small"
      class="wide mono expression"
      placeholder="quantity * 2"
      :aria-label="label"
      @update:value="(now: string) => set(now)"
    />
  </span>
</template>

<style scoped>
.operand {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  min-width: 0;
}
.kind {
  width: 100px;
}
.wide {
  width: 180px;
}
.expression {
  width: 290px;
}
</style>
