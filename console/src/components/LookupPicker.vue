<script setup lang="ts">
import { Select } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { findEntries } from '@/api/connections'
import { useLatest } from '@/composables/latest'

/** Chooses a code that an outside service knows; the service is asked for what is typed. */
const props = defineProps<{
  id?: string
  label?: string
  /** As in `tide-table.gauges`. */
  lookup: string
  value: string | null
  /** What the value was called when it was chosen. */
  title?: string
  disabled?: boolean
  status?: 'error' | ''
  clearable?: boolean
}>()
const emit = defineEmits<{ update: [code: string | null] }>()

const PAUSE = 250
const text = ref('')
const opened = ref(false)
const { data: found, loading, error, run } = useLatest((search: string) => findEntries(props.lookup, search))
let timer: ReturnType<typeof setTimeout> | undefined
watch(opened, (now) => now && void run(text.value))
watch(text, (now) => {
  clearTimeout(timer)
  if (opened.value) timer = setTimeout(() => void run(now), PAUSE)
})

/** What stands behind a code here: what was just found, or what it was called. */
const chosen = ref<Record<string, string>>({})
watch(found, (now) => now?.entries.forEach((one) => (chosen.value[one.code] = one.label)))
const shown = (code: string, label?: string) => (label && label !== code ? `${code} · ${label}` : code)

const problem = computed(() => error.value?.message ?? found.value?.message ?? '')
const options = computed(() => {
  const list = (found.value?.entries ?? []).map((one) => ({
    value: one.code,
    label: shown(one.code, one.label),
  }))
  if (props.value && !list.some((one) => one.value === props.value))
    list.unshift({ value: props.value, label: shown(props.value, props.title ?? chosen.value[props.value]) })
  return list
})
</script>

<template>
  <div>
    <Select
      :id="id"
      :value="value ?? undefined"
      :aria-label="props.label"
      :options="options"
      :loading="loading"
      :disabled="disabled"
      :status="status"
      show-search
      :allow-clear="clearable"
      :filter-option="false"
      placeholder="Choose …"
      :not-found-content="loading ? 'Asking …' : problem || 'None found'"
      style="width: 100%"
      @search="(now: string) => (text = now)"
      @dropdown-visible-change="(now: boolean) => (opened = now)"
      @change="(now) => emit('update', (now as string | undefined) ?? null)"
    />
    <div v-if="opened && problem" class="problem" role="status">{{ problem }}</div>
    <div v-else-if="opened && found?.more" class="quiet more">There are more; type to find one.</div>
  </div>
</template>

<style scoped>
.problem {
  color: var(--bad);
  font-size: 12.5px;
}
.more {
  font-size: 12.5px;
}
</style>
