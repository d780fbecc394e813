<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, Select } from 'ant-design-vue'
import { computed } from 'vue'
import TypedInput from '@/components/TypedInput.vue'
import { ACTIONS, type Action, type ActionKind, type GivenValues } from '@/editor/requirementFile'
import { objectOf, type Known } from './known'
import ValueRows from './ValueRows.vue'

/** One thing that is done in an example, put together from the model. */
const props = defineProps<{ known: Known; readOnly?: boolean; only?: ActionKind[]; label: string }>()
const action = defineModel<Action>({ required: true })
const emit = defineEmits<{ removed: [] }>()

const WORDS: Record<ActionKind, string> = {
  create: 'create',
  change: 'change',
  retire: 'retire',
  call: 'call',
  transition: 'take the step',
}
const kinds = computed(() => (props.only ?? ACTIONS).map((value) => ({ value, label: WORDS[value] })))
const objects = computed(() => props.known.objects.map((one) => ({ value: one.name, label: one.label })))
const records = computed(() => [...props.known.records.keys()].map((value) => ({ value })))
const object = computed(() => objectOf(action.value, props.known))
const steps = computed(() =>
  (object.value ? [object.value] : props.known.objects).flatMap((one) =>
    (one.lifecycle?.transitions ?? []).map((step) => ({ value: step.name, label: step.label })),
  ),
)
const calls = computed(() => [
  ...(object.value?.functions ?? [])
    .filter((one) => one.onRecord)
    .map((one) => ({ value: one.name, label: one.label })),
  ...props.known.objects.flatMap((one) =>
    one.functions
      .filter((called) => !called.onRecord)
      .map((called) => ({ value: `${one.name}.${called.name}`, label: `${called.label} (${one.label})` })),
  ),
])
const called = computed(() => {
  const [first, second] = action.value.target.split('.')
  const of = second ? props.known.objects.find((one) => one.name === first) : object.value
  return of?.functions.find((one) => one.name === (second ?? first))
})
const set = (now: Partial<Action>) => (action.value = { ...action.value, ...now })
function become(kind: ActionKind) {
  const target = kind === 'create' ? (props.known.objects[0]?.name ?? '') : ''
  action.value = {
    kind,
    target: kind === 'change' || kind === 'retire' ? (records.value.at(-1)?.value ?? '') : target,
    ...(kind === 'transition' || kind === 'call' ? { of: records.value.at(-1)?.value } : {}),
    ...(kind === 'create' || kind === 'change' ? { values: {} } : {}),
  }
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim() || undefined
const givable = computed(() => (object.value?.fields ?? []).filter((one) => !one.formula))
const parameters = computed(() =>
  (called.value?.parameters ?? []).flatMap((one) => (one.field ? [one.field] : [])),
)
</script>

<template>
  <div class="action">
    <div class="line">
      <Select
        :value="action.kind"
        :options="kinds"
        :disabled="readOnly"
        size="small"
        style="width: 118px"
        :aria-label="`${label}: what is done`"
        @change="(now) => become(now as ActionKind)"
      />
      <Select
        v-if="action.kind === 'create'"
        :value="action.target || undefined"
        :options="objects"
        :disabled="readOnly"
        show-search
        option-filter-prop="label"
        size="small"
        style="width: 170px"
        :aria-label="`${label}: object`"
        @change="(now) => set({ target: String(now), values: {} })"
      />
      <AutoComplete
        v-else-if="action.kind === 'change' || action.kind === 'retire'"
        :value="action.target"
        :options="records"
        :disabled="readOnly"
        size="small"
        style="width: 200px"
        placeholder="a record, as Object/key or its name"
        :aria-label="`${label}: record`"
        @change="(now) => set({ target: String(now ?? '') })"
      />
      <template v-else>
        <Select
          :value="action.target || undefined"
          :options="action.kind === 'call' ? calls : steps"
          :disabled="readOnly"
          show-search
          option-filter-prop="label"
          size="small"
          style="width: 170px"
          placeholder="which"
          :aria-label="`${label}: ${action.kind === 'call' ? 'function' : 'step'}`"
          @change="(now) => set({ target: String(now) })"
        />
        <template v-if="!action.target.includes('.')">
          <span class="quiet">of</span>
          <AutoComplete
            :value="action.of ?? ''"
            :options="records"
            :disabled="readOnly"
            size="small"
            style="width: 170px"
            placeholder="a record"
            :aria-label="`${label}: of which record`"
            @change="(now) => set({ of: String(now ?? '') || undefined })"
          />
        </template>
      </template>
      <template v-if="action.kind === 'create' || action.as">
        <span class="quiet">called</span>
        <TypedInput
          class="short"
          :value="action.as ?? ''"
          :disabled="readOnly"
          placeholder="no name"
          :aria-label="`${label}: name for the record`"
          @change="set({ as: typed($event) })"
        />
      </template>
      <template v-if="action.by">
        <span class="quiet">by</span>
        <TypedInput
          class="short"
          :value="action.by"
          :disabled="readOnly"
          :aria-label="`${label}: by whom`"
          @change="set({ by: typed($event) })"
        />
      </template>
      <span class="spacer"></span>
      <Button
        v-if="!readOnly"
        size="small"
        type="text"
        :aria-label="`Take away: ${label}`"
        @click="emit('removed')"
        ><DeleteOutlined
      /></Button>
    </div>
    <ValueRows
      v-if="action.kind === 'create' || action.kind === 'change'"
      :model-value="action.values ?? {}"
      :fields="givable"
      :parts="object?.parts"
      :label="label"
      :read-only="readOnly"
      @update:model-value="(now: GivenValues) => set({ values: now })"
    />
    <ValueRows
      v-else-if="action.kind === 'call' && (parameters.length || action.with)"
      :model-value="action.with ?? {}"
      :fields="parameters"
      :label="label"
      :read-only="readOnly"
      @update:model-value="(now: GivenValues) => set({ with: now })"
    />
  </div>
</template>

<style scoped>
.action {
  display: grid;
  gap: 5px;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 6px 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  align-items: center;
}
.short {
  width: 100px;
}
</style>
