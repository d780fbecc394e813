<script setup lang="ts">
import { AutoComplete, Button, Checkbox, Input } from 'ant-design-vue'
import type { FieldKey, FieldRow, Travel } from '@/editor/objectFile'
import FieldTravels from './FieldTravels.vue'

/** What else can be said of a field than the grid has room for. */
defineProps<{
  row: FieldRow
  readOnly: boolean
  has: (key: FieldKey) => boolean
  /** Languages of the package, the main one first. */
  languages: string[]
  /** The object whose field it is; line items' fields do not travel. */
  object?: string
}>()
const emit = defineEmits<{
  set: [key: FieldKey, value: unknown]
  uses: []
  label: [language: string, text: string]
  travels: [travels: Travel[]]
}>()

const CURRENCIES = [
  'record',
  ...(typeof Intl.supportedValuesOf === 'function' ? Intl.supportedValuesOf('currency') : []),
].map((value) => ({ value }))
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="details">
    <label class="wide">
      What it means, for forms and contracts
      <Input
        :value="row.describe"
        :disabled="readOnly"
        size="small"
        placeholder="In metres"
        :aria-label="`Description of ${row.name}`"
        @change="(event) => emit('set', 'describe', typed(event))"
      />
    </label>
    <label v-for="language in languages.slice(1)" :key="language">
      Label in {{ language }}
      <Input
        :value="row.labels[language]"
        :disabled="readOnly"
        size="small"
        :placeholder="row.label"
        :aria-label="`Label of ${row.name} in ${language}`"
        @change="(event) => emit('label', language, typed(event))"
      />
    </label>
    <label v-if="has('pattern')">
      Form it must have, a regular expression
      <Input
        :value="row.pattern"
        :disabled="readOnly"
        size="small"
        class="mono"
        placeholder="[A-Z]{2}-[0-9]{4}"
        :aria-label="`Pattern of ${row.name}`"
        @change="(event) => emit('set', 'pattern', typed(event))"
      />
    </label>
    <label v-if="has('currency')">
      Currency
      <AutoComplete
        :value="row.currency"
        :options="CURRENCIES"
        :disabled="readOnly"
        size="small"
        placeholder="that of the package"
        :aria-label="`Currency of ${row.name}`"
        @change="(now) => emit('set', 'currency', now)"
      />
      <span class="quiet">record: each record says its own</span>
    </label>
    <label v-if="has('inverse')">
      Seen from the other side as
      <Input
        :value="row.inverse"
        :disabled="readOnly"
        size="small"
        class="mono"
        placeholder="orders"
        :aria-label="`Inverse of ${row.name}`"
        @change="(event) => emit('set', 'inverse', typed(event))"
      />
      <span class="quiet">for totals, and lists at its side</span>
    </label>
    <label v-if="has('accepts')">
      Media types that are taken
      <Input
        :value="row.accepts"
        :disabled="readOnly"
        size="small"
        class="mono"
        placeholder="any"
        :aria-label="`Media types of ${row.name}`"
        @change="(event) => emit('set', 'accepts', typed(event))"
      />
      <span class="quiet">application/pdf, image/*</span>
    </label>
    <label v-if="has('largest')">
      How large it may be
      <Input
        :value="row.largest"
        :disabled="readOnly"
        size="small"
        placeholder="3 MB"
        :aria-label="`Largest size of ${row.name}`"
        @change="(event) => emit('set', 'largest', typed(event))"
      />
    </label>
    <FieldTravels
      v-if="object"
      :object="object"
      :field="row.name"
      :travels="row.travels"
      :read-only="readOnly"
      @set="(now) => emit('travels', now)"
    />
    <div class="ticks">
      <Checkbox :checked="row.readOnly" :disabled="readOnly" @change="emit('set', 'readOnly', !row.readOnly)"
        >only the service sets it</Checkbox
      >
      <Checkbox
        v-if="has('multiline')"
        :checked="row.multiline"
        :disabled="readOnly"
        @change="emit('set', 'multiline', !row.multiline)"
        >several lines</Checkbox
      >
      <Checkbox
        v-if="has('localised')"
        :checked="row.localised"
        :disabled="readOnly"
        @change="emit('set', 'localised', !row.localised)"
        >in each language of the package</Checkbox
      >
      <Button size="small" type="link" @click="emit('uses')">Used by</Button>
    </div>
  </div>
</template>

<style scoped>
.details {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px 16px;
  max-width: 760px;
}
.details > label {
  display: grid;
  gap: 3px;
  align-content: start;
  font-size: 12.5px;
}
.wide,
.ticks {
  grid-column: 1 / -1;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
</style>
