<script setup lang="ts">
import { Input, InputNumber, Select, Switch, Textarea } from 'ant-design-vue'
import type { FieldView } from '@/api/client'
import type { PickPlace } from '@/api/logic'
import type { Plain } from '@/api/records'
import { decimalSign } from '@/composables/format'
import FileInput from './FileInput.vue'
import LookupPicker from './LookupPicker.vue'
import RecordPicker from './RecordPicker.vue'

const SIGN = decimalSign()
const props = defineProps<{
  field: FieldView
  value: Plain | undefined
  title?: string
  disabled?: boolean
  wrong?: boolean
  id?: string
  place?: PickPlace
  /** Where the stored file of a file field is downloaded. */
  file?: string
}>()
const emit = defineEmits<{ update: [value: Plain] }>()

const HTML_TYPES: Record<string, 'date' | 'time' | 'email' | 'tel' | 'url'> = {
  date: 'date',
  time: 'time',
  email: 'email',
  phone: 'tel',
  'web-address': 'url',
}

const text = () => (props.value === null || props.value === undefined ? '' : String(props.value))
const inLanguage = (language: string) =>
  props.value && typeof props.value === 'object' && !Array.isArray(props.value)
    ? String(props.value[language] ?? '')
    : ''
const languages = () =>
  props.value && typeof props.value === 'object' && !Array.isArray(props.value) ? props.value : {}

function localMoment(): string {
  const iso = text()
  if (!iso) return ''
  const date = new Date(iso)
  return new Date(date.getTime() - date.getTimezoneOffset() * 60000).toISOString().slice(0, 16)
}
const asMoment = (local: string) => (local ? new Date(local).toISOString() : null)
const money = (part: 'value' | 'currency') =>
  props.value && typeof props.value === 'object' && !Array.isArray(props.value) ? props.value[part] : null
function setMoney(part: 'value' | 'currency', now: Plain) {
  const next = { value: money('value') ?? null, currency: money('currency') ?? '', [part]: now }
  emit('update', next.value === null || next.value === '' ? null : next)
}
</script>

<template>
  <RecordPicker
    v-if="field.type === 'reference'"
    :to="field.to!"
    :value="(value as string | null) ?? null"
    :title="title"
    :label="field.label"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    :place="field.offers ? place : undefined"
    @update="(key) => emit('update', key)"
  />
  <FileInput
    v-else-if="field.type === 'file'"
    :id="id"
    :field="field"
    :value="value"
    :disabled="disabled"
    :wrong="wrong"
    :address="file"
    @update="(now) => emit('update', now)"
  />
  <LookupPicker
    v-else-if="field.lookup"
    :id="id"
    :lookup="field.lookup"
    :value="(value as string | null) ?? null"
    :title="title"
    :label="field.label"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    :clearable="!field.required"
    @update="(code) => emit('update', code)"
  />
  <Select
    v-else-if="field.type === 'choice'"
    :id="id"
    :aria-label="field.label"
    :value="(value as string) ?? undefined"
    :options="field.choices.map((choice) => ({ value: choice.code, label: choice.label }))"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    :allow-clear="!field.required"
    style="width: 100%"
    @change="(now) => emit('update', (now as string | undefined) ?? null)"
  />
  <Switch
    v-else-if="field.type === 'boolean'"
    :id="id"
    :aria-label="field.label"
    :checked="value === true"
    :disabled="disabled"
    @change="(now) => emit('update', now === true)"
  />
  <div v-else-if="field.languages.length" class="languages">
    <Input
      v-for="language in field.languages"
      :key="language"
      :value="inLanguage(language)"
      :addon-before="language"
      :aria-label="`${field.label} (${language})`"
      :disabled="disabled"
      :status="wrong ? 'error' : ''"
      @update:value="(now: string) => emit('update', { ...languages(), [language]: now || null })"
    />
  </div>
  <div v-else-if="field.type === 'amount' && field.currency === 'record'" class="row">
    <InputNumber
      :value="(money('value') as number) ?? undefined"
      :aria-label="field.label"
      :precision="field.scale"
      :decimal-separator="SIGN"
      :disabled="disabled"
      :status="wrong ? 'error' : ''"
      style="flex: 1"
      @change="(now) => setMoney('value', (now as number | null) ?? null)"
    />
    <Input
      :value="(money('currency') as string) ?? ''"
      :maxlength="3"
      :disabled="disabled"
      style="width: 70px"
      :aria-label="`Currency of ${field.label}`"
      @update:value="(now: string) => setMoney('currency', now.toUpperCase())"
    />
  </div>
  <InputNumber
    v-else-if="['integer', 'decimal', 'percent', 'amount'].includes(field.type)"
    :id="id"
    :aria-label="id ? undefined : field.label"
    :value="(value as number) ?? undefined"
    :precision="field.scale ?? 0"
    :decimal-separator="SIGN"
    :addon-after="field.type === 'percent' ? '%' : field.currency"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    style="width: 100%"
    @change="(now) => emit('update', (now as number | null) ?? null)"
  />
  <Textarea
    v-else-if="field.multiline"
    :id="id"
    :aria-label="id ? undefined : field.label"
    :value="text()"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    :auto-size="{ minRows: 2, maxRows: 8 }"
    @update:value="(now: string) => emit('update', now || null)"
  />
  <Input
    v-else-if="field.type === 'date-time'"
    :id="id"
    :aria-label="id ? undefined : field.label"
    type="datetime-local"
    :value="localMoment()"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    @update:value="(now: string) => emit('update', asMoment(now))"
  />
  <Input
    v-else
    :id="id"
    :aria-label="id ? undefined : field.label"
    :type="HTML_TYPES[field.type] ?? 'text'"
    :value="text()"
    :placeholder="field.type === 'duration' ? 'P1DT6H' : ''"
    :disabled="disabled"
    :status="wrong ? 'error' : ''"
    @update:value="(now: string) => emit('update', now || null)"
  />
</template>

<style scoped>
.languages {
  display: grid;
  gap: 6px;
}
</style>
