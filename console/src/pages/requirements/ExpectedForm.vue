<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, Segmented, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { ObjectView } from '@/api/client'
import TypedInput from '@/components/TypedInput.vue'
import type { Action, Expected, GivenValues } from '@/editor/requirementFile'
import { knownAfter, objectOf } from './known'
import ValueRows from './ValueRows.vue'

/** What comes of an example: it is refused with some words, or goes through with what is so then. */
const props = defineProps<{
  objects: ObjectView[]
  events: string[]
  actions: Action[]
  label: string
  readOnly?: boolean
}>()
const expected = defineModel<Expected>({ required: true })

const known = computed(() => knownAfter(props.objects, props.actions))
const last = computed(() => props.actions.at(-1))
const object = computed(() => (last.value ? objectOf(last.value, known.value) : undefined))
const isRefused = computed(() => expected.value.refused !== undefined)
const set = (now: Partial<Expected>) => (expected.value = { ...expected.value, ...now })
const typed = (event: Event) => (event.target as HTMLInputElement).value
const become = (refused: boolean) => (expected.value = refused ? { refused: '' } : { values: {} })
const names = computed(() => (expected.value.events ?? []).filter((one) => typeof one === 'string'))
const written = computed(() => (expected.value.events ?? []).filter((one) => typeof one !== 'string'))
const objectOfRecord = (name: string) =>
  props.objects.find((one) => one.name === (known.value.records.get(name) ?? name.split('/')[0]))
function addRecord(name: string) {
  if (name) set({ records: { ...expected.value.records, [name]: {} } })
}
function removeRecord(name: string) {
  const records = { ...expected.value.records }
  delete records[name]
  set({ records: Object.keys(records).length ? records : undefined })
}
</script>

<template>
  <div class="expected">
    <Segmented
      :value="isRefused ? 'is refused' : 'goes through'"
      :options="['goes through', 'is refused']"
      :disabled="readOnly"
      size="small"
      class="way"
      :aria-label="`${label}: what comes of it`"
      @change="(now) => become(now === 'is refused')"
    />
    <div v-if="isRefused" class="pairs">
      <span>with the words</span>
      <TypedInput
        :value="expected.refused ?? ''"
        :disabled="readOnly"
        placeholder="a few words of the message"
        :aria-label="`${label}: words`"
        @change="set({ refused: typed($event) })"
      />
      <span>at the field</span>
      <AutoComplete
        :value="expected.at ?? ''"
        :options="(object?.fields ?? []).map((one) => ({ value: one.name }))"
        :disabled="readOnly"
        size="small"
        placeholder="any"
        :aria-label="`${label}: at field`"
        @change="(now) => set({ at: String(now ?? '') || undefined })"
      />
    </div>
    <template v-else>
      <div class="pairs">
        <span>Then the record has</span>
        <ValueRows
          :model-value="expected.values ?? {}"
          :fields="object?.fields ?? []"
          :parts="object?.parts"
          :label="label"
          :read-only="readOnly"
          @update:model-value="(now: GivenValues) => set({ values: now })"
        />
        <template v-for="(values, name) in expected.records ?? {}" :key="name">
          <span
            >{{ name }} has
            <Button
              v-if="!readOnly"
              size="small"
              type="text"
              :aria-label="`Take away ${name}`"
              @click="removeRecord(String(name))"
              ><DeleteOutlined /></Button
          ></span>
          <ValueRows
            :model-value="values"
            :fields="objectOfRecord(String(name))?.fields ?? []"
            :parts="objectOfRecord(String(name))?.parts"
            :label="`${label}: ${name}`"
            :read-only="readOnly"
            @update:model-value="(now: GivenValues) => set({ records: { ...expected.records, [name]: now } })"
          />
        </template>
        <template v-if="last?.kind === 'call' || expected.result !== undefined">
          <span>It gives back</span>
          <TypedInput
            :value="expected.result === undefined ? '' : String(expected.result)"
            :disabled="readOnly"
            placeholder="anything"
            :aria-label="`${label}: result`"
            @change="set({ result: typed($event) || undefined })"
          />
        </template>
        <span>It warns with</span>
        <TypedInput
          :value="expected.warns ?? ''"
          :disabled="readOnly"
          placeholder="nothing is asked of warnings"
          :aria-label="`${label}: warning`"
          @change="set({ warns: typed($event) || undefined })"
        />
        <span>Events raised</span>
        <Select
          :value="names as string[]"
          mode="multiple"
          :options="events.map((value) => ({ value }))"
          :disabled="readOnly"
          size="small"
          placeholder="nothing is asked of events"
          :aria-label="`${label}: events`"
          @change="
            (now) => {
              const all = [...(now as string[]), ...written]
              set({ events: all.length ? all : undefined })
            }
          "
        />
      </div>
      <Select
        v-if="!readOnly"
        :key="Object.keys(expected.records ?? {}).length"
        :value="undefined"
        :options="[...known.records.keys()].map((value) => ({ value }))"
        size="small"
        style="width: 190px"
        :aria-label="`${label}: another record`"
        @change="(now) => addRecord(String(now))"
      >
        <template #placeholder><PlusOutlined /> another record has …</template>
      </Select>
    </template>
  </div>
</template>

<style scoped>
.expected {
  display: grid;
  gap: 6px;
}
.way {
  justify-self: start;
}
.pairs {
  display: grid;
  grid-template-columns: 140px minmax(0, 1fr);
  gap: 5px 8px;
  align-items: start;
}
.pairs > span {
  color: var(--quiet);
  font-size: 12.5px;
  padding-top: 3px;
}
</style>
