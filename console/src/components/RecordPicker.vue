<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { ObjectView } from '@/api/client'
import { offeredRecords, type PickPlace } from '@/api/logic'
import { addressOf, findRecords } from '@/api/records'
import { useObject } from '@/composables/model'
import { useLatest } from '@/composables/latest'

const props = defineProps<{
  /** What it is for, to whoever hears the page. */
  label?: string
  to: string
  value: string | null
  title?: string
  disabled?: boolean
  status?: 'error' | ''
  /** Where the reference is, when what it offers depends on the record. */
  place?: PickPlace
}>()
const emit = defineEmits<{ update: [key: string | null] }>()

const { object } = useObject(() => props.to)
const text = ref('')
const opened = ref(false)
const MOST = 20

const {
  data: found,
  loading,
  run,
} = useLatest((search: string) =>
  props.place ? offeredRecords(props.place, search) : findRecords(props.to, { search, limit: MOST }),
)
watch([opened, text], () => {
  // An object that is in the draft only has no records to choose from yet.
  if (opened.value && object.value) void run(text.value)
})

function labelOf(key: string, title: string | undefined) {
  return title ? `${key} · ${title}` : key
}
function titleOf(of: ObjectView, values: Record<string, unknown>): string | undefined {
  const value = of.title ? values[of.title] : undefined
  if (value && typeof value === 'object') return String(Object.values(value)[0] ?? '')
  return value ? String(value) : undefined
}

const options = computed(() => {
  const of = object.value
  const list = (of ? (found.value?.records ?? []) : []).map((record) => {
    const key = addressOf(of!.key, record)
    return { value: key, label: labelOf(key, titleOf(of!, record.values)) }
  })
  if (props.value && !list.some((one) => one.value === props.value)) {
    list.unshift({ value: props.value, label: labelOf(props.value, props.title) })
  }
  return list
})
</script>

<template>
  <Select
    :value="value ?? undefined"
    :aria-label="props.label ?? object?.label"
    :options="options"
    :loading="loading"
    :disabled="disabled"
    :status="status"
    show-search
    allow-clear
    :filter-option="false"
    :placeholder="object ? `Choose ${object.label.toLowerCase()} …` : ''"
    :not-found-content="
      loading ? 'Looking …' : !object ? 'Not released yet' : place ? 'None fits' : 'None found'
    "
    style="width: 100%"
    @search="(now: string) => (text = now)"
    @dropdown-visible-change="(now: boolean) => (opened = now)"
    @change="(now) => emit('update', (now as string | undefined) ?? null)"
  />
</template>
