<script setup lang="ts">
import { Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import { readFacts, readFields, setFact, setObjectLabel, type ObjectFacts } from '@/editor/objectFile'

/** What is said of an object as a whole: what people call it, how it is numbered, what leaving means. */
const props = defineProps<{
  text: string
  readOnly: boolean
  /** Languages of the package, the main one first. */
  languages: string[]
}>()
const emit = defineEmits<{ update: [text: string] }>()

const facts = computed(() => readFacts(props.text))
const texts = computed(() =>
  (readFields(props.text, ['fields']) ?? [])
    .filter((field) => field.type === 'text')
    .map((field) => ({ value: field.name, label: field.name })),
)
const REMOVALS = [
  { value: 'retire', label: 'retired, asking when others use it' },
  { value: 'retire refuse', label: 'retired, unless others use it' },
  { value: 'retire free', label: 'retired freely' },
  { value: 'delete', label: 'deleted for good' },
  { value: 'none', label: 'never removed' },
]
type Key = Exclude<keyof ObjectFacts, 'labels' | 'plurals'>
function set(key: Key, value: string | undefined) {
  const main = props.languages[0]
  emit(
    'update',
    key === 'label' || key === 'plural'
      ? setObjectLabel(props.text, key, main, value ?? '', main)
      : setFact(props.text, key, value),
  )
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="facts">
    <label>
      Label
      <Input
        :value="facts.label"
        :disabled="readOnly"
        size="small"
        placeholder="from the name"
        aria-label="Label of the object"
        @change="(event) => set('label', typed(event))"
      />
    </label>
    <label>
      Label of several
      <Input
        :value="facts.plural"
        :disabled="readOnly"
        size="small"
        placeholder="from the label"
        aria-label="Label of several"
        @change="(event) => set('plural', typed(event))"
      />
    </label>
    <template v-for="language in languages.slice(1)" :key="language">
      <label v-for="key in ['label', 'plural'] as const" :key="key">
        {{ key === 'label' ? 'Label' : 'Label of several' }} in {{ language }}
        <Input
          :value="(key === 'label' ? facts.labels : facts.plurals)[language]"
          :disabled="readOnly"
          size="small"
          :aria-label="`${key === 'label' ? 'Label of the object' : 'Label of several'} in ${language}`"
          @change="(event) => emit('update', setObjectLabel(text, key, language, typed(event), languages[0]))"
        />
      </label>
    </template>
    <label class="wide">
      What a record is
      <Input
        :value="facts.describe"
        :disabled="readOnly"
        size="small"
        placeholder="One vessel on one berth over a span of nights."
        aria-label="Description of the object"
        @change="(event) => set('describe', typed(event))"
      />
    </label>
    <label>
      Records are
      <Select
        :value="facts.removal"
        :options="REMOVALS"
        :disabled="readOnly"
        size="small"
        aria-label="How records leave"
        @change="(now) => set('removal', String(now))"
      />
    </label>
    <label>
      Numbers itself
      <span class="row">
        <Select
          :value="facts.numberingField"
          :options="texts"
          :disabled="readOnly"
          size="small"
          allow-clear
          placeholder="no field"
          style="flex: 1"
          aria-label="Field that numbers itself"
          @change="(now) => set('numberingField', now as string | undefined)"
        />
        <Input
          v-if="facts.numberingField"
          :value="facts.numberingPattern"
          :disabled="readOnly"
          size="small"
          class="mono"
          style="flex: 1.4"
          aria-label="Pattern of the number"
          @change="(event) => set('numberingPattern', typed(event))"
        />
      </span>
    </label>
  </div>
</template>

<style scoped>
.facts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px 16px;
  margin-bottom: 14px;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--line);
}
label {
  display: grid;
  gap: 3px;
  align-content: start;
  font-size: 12.5px;
  color: var(--quiet);
}
.wide {
  grid-column: 1 / -1;
}
</style>
