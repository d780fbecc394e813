<script setup lang="ts">
import { Input, Select } from 'ant-design-vue'
import { computed } from 'vue'
import { readFacts, setFact, setObjectLabel, type ObjectFacts } from '@/editor/objectFacts'
import { readFields } from '@/editor/objectFile'

/** What is said of an object as a whole: what people call it, how it is numbered, what leaving means. */
const props = defineProps<{
  text: string
  readOnly: boolean
  /** Languages of the package, the main one first. */
  languages: string[]
}>()
const emit = defineEmits<{ update: [text: string] }>()

const facts = computed(() => readFacts(props.text, props.languages[0]))
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
const set = (key: Exclude<keyof ObjectFacts, 'labels' | 'plurals'>, value: string | undefined) =>
  emit('update', setFact(props.text, key, value))
const NAMES = [
  { key: 'label', of: 'labels', title: 'Label', said: 'Label of the object', hint: 'from the name' },
  {
    key: 'plural',
    of: 'plurals',
    title: 'Label of several',
    said: 'Label of several',
    hint: 'from the label',
  },
] as const
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="facts">
    <template v-for="(language, at) in languages" :key="language">
      <label v-for="one in NAMES" :key="one.key">
        {{ one.title }}{{ at ? ` in ${language}` : '' }}
        <Input
          :value="facts[one.of][language]"
          :disabled="readOnly"
          size="small"
          :placeholder="at ? facts[one.of][languages[0]] : one.hint"
          :aria-label="at ? `${one.said} in ${language}` : one.said"
          @change="
            (event) => emit('update', setObjectLabel(text, one.key, language, typed(event), languages[0]))
          "
        />
      </label>
    </template>
    <label class="wide">
      What a record is
      <Input
        :value="facts.describe"
        :disabled="readOnly"
        size="small"
        placeholder="What one customer ordered at one time."
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
