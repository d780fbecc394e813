import { computed, ref, watch, type Ref } from 'vue'
import type { ObjectView } from '@/api/client'
import { CODES } from '@/api/codes'
import { ApiProblem } from '@/api/http'
import { previewRecord } from '@/api/logic'
import type { RecordView, Values } from '@/api/records'
import { withoutContent } from '@/components/keptFile'
import { useLatest } from '@/composables/latest'
import { changes, newValues, same, shown } from './form'

const PAUSE = 250

/**
 * What is entered into the form of a record: the values, what of them differs from what is stored, and what the service makes
 * of them while they are typed: totals, required marks, what is filled in, what is wrong.
 *
 * `stored` is undefined for a new record and for one that is still being read.
 */
export function useRecordForm(
  object: Ref<ObjectView | undefined>,
  stored: Ref<RecordView | undefined>,
  isNew: Ref<boolean>,
) {
  const entered = ref<Values>({})
  const touched = ref(new Set<string>())
  const messages = ref<Record<string, string>>({})
  const problem = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined

  // Until a record is saved the form goes on without help when it cannot be worked out.
  const preview = useLatest((values: Values) =>
    previewRecord(object.value!.name, stored.value?.id, values).catch(() => undefined),
  )

  const values = computed(() =>
    object.value
      ? shown(object.value, entered.value, touched.value, preview.data.value?.values)
      : entered.value,
  )
  const sent = computed(() => (object.value ? changes(object.value, stored.value, entered.value) : {}))
  const isChanged = computed(() =>
    isNew.value
      ? !!object.value && !same(entered.value, newValues(object.value))
      : Object.keys(sent.value).length > 0,
  )

  watch([object, stored, isNew], begin, { immediate: true })

  function begin() {
    quiet()
    if (!object.value) return
    touched.value = new Set()
    preview.clear()
    if (isNew.value) entered.value = newValues(object.value)
    else if (stored.value) entered.value = JSON.parse(JSON.stringify(stored.value.values))
    if (isNew.value || stored.value) look()
  }

  function look() {
    clearTimeout(timer)
    timer = setTimeout(() => void preview.run(withoutContent(sent.value)), PAUSE)
  }

  function set(field: string, value: Values[string]) {
    entered.value = { ...entered.value, [field]: value }
    touched.value = new Set([...touched.value, field])
    look()
    if (messages.value[field]) {
      const rest = { ...messages.value }
      delete rest[field]
      messages.value = rest
    }
  }

  /** Takes what was saved as the new ground. */
  function settle(saved: RecordView) {
    entered.value = JSON.parse(JSON.stringify(saved.values))
    touched.value = new Set()
  }

  function quiet() {
    messages.value = {}
    problem.value = ''
  }

  /** Says at its fields what was refused; what has no field, or came of somebody else's change, above them. */
  function tell(error: unknown) {
    if (!(error instanceof ApiProblem)) {
      problem.value = String(error)
      return
    }
    messages.value = error.byField()
    const placed = Object.keys(messages.value).some((key) => key !== '')
    problem.value = !placed || error.problem.status === 412 ? error.message : ''
  }

  /** Messages of a save that was refused; while typing, those about what was touched already. */
  const said = computed(() => {
    const all: Record<string, string> = { ...messages.value }
    for (const one of preview.data.value?.faults ?? []) {
      const [first, row] = one.path.split('.')
      const at = one.path.replaceAll('.', '/')
      const isTouched = touched.value.has(row === undefined ? one.path : first)
      if (!all[at] && isTouched && one.code !== CODES.REQUIRED) all[at] = one.message
    }
    return all
  })

  const flagsOf = (field: string) => preview.data.value?.fields[field]
  const isHidden = (field: { name: string }) =>
    (flagsOf(field.name)?.hidden ?? false) || field.name === object.value?.lifecycle?.field
  const isRequired = (field: { name: string; required: boolean }) =>
    flagsOf(field.name)?.required ?? (field.required || (object.value?.key.includes(field.name) ?? false))

  return {
    values,
    sent,
    isChanged,
    /** About the record as a whole. */
    general: computed(() => messages.value[''] ?? ''),
    problem,
    said,
    warnings: computed(() => preview.data.value?.warnings ?? []),
    flags: computed(() => preview.data.value?.fields ?? {}),
    flagsOf,
    isHidden,
    isRequired,
    set,
    settle,
    quiet,
    tell,
  }
}
