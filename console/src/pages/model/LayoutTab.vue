<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Checkbox, Select } from 'ant-design-vue'
import { computed } from 'vue'
import type { FieldView } from '@/api/client'
import TypedInput from '@/components/TypedInput.vue'
import { useDraft, useModel } from '@/composables/model'
import {
  moveTo,
  readLayout,
  shiftField,
  writeLayout,
  type LayoutFile,
  type LayoutSection,
  type Where,
} from '@/editor/layoutFile'
import { extendedName, objectName } from '@/editor/objectFile'
import ArrangedFields from './ArrangedFields.vue'

/** How records are entered and listed: sections of the form, what stands beside it, columns of lists. */
const props = defineProps<{ path: string; text: string; object: string; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string] }>()

const { objects } = useModel('OUTLINE')
const object = computed(() => objects.value.find((one) => one.name === props.object))
const isExtension = computed(() => extendedName(props.text) !== undefined)
const layout = computed(() => readLayout(props.text))
/** The fields that can be placed here. */
const fields = computed<FieldView[]>(() =>
  (object.value?.fields ?? []).filter((one) => one.name !== object.value?.lifecycle?.field),
)
const labelled = (names: string[]) =>
  names.map((name) => ({ name, label: fields.value.find((one) => one.name === name)?.label ?? name }))
const fieldOf = (name: string) => fields.value.find((one) => one.name === name)
const { data: draft } = useDraft()
/** What other files say of the same object: the object's own, and those of other packages. */
const elsewhere = computed(() =>
  (draft.value?.files ?? [])
    .filter(
      (one) =>
        one.path !== props.path && [objectName(one.text), extendedName(one.text)].includes(props.object),
    )
    .map((one) => readLayout(one.text)),
)
const placedIn = (of: LayoutFile | undefined) =>
  of ? [...of.sections.flatMap((one) => one.fields), ...of.leaveOut] : []
const rest = computed(() => {
  const placed = new Set([...placedIn(layout.value), ...elsewhere.value.flatMap(placedIn)])
  return fields.value.map((one) => one.name).filter((name) => !placed.has(name))
})
const options = computed(() => fields.value.map((one) => ({ value: one.name, label: one.label })))

const save = (now: LayoutFile) => emit('update', writeLayout(props.text, now))
const drop = (field: string, to: Where, place?: number) => {
  if (fieldOf(field)) save(moveTo(layout.value!, field, to, place))
}
const shift = (field: string, by: -1 | 1) => save(shiftField(layout.value!, field, by))
function setSection(at: number, now: Partial<LayoutSection>) {
  save({
    ...layout.value!,
    sections: layout.value!.sections.map((one, place) => (place === at ? { ...one, ...now } : one)),
  })
}
function addSection() {
  const count = layout.value!.sections.length + 1
  save({
    ...layout.value!,
    sections: [...layout.value!.sections, { heading: `Section ${count}`, fields: [] }],
  })
}
function moveSection(at: number, by: -1 | 1) {
  const sections = [...layout.value!.sections]
  const [moved] = sections.splice(at, 1)
  sections.splice(at + by, 0, moved)
  save({ ...layout.value!, sections })
}
const toggle = (key: 'wide' | 'leaveOut', name: string) => {
  const now = layout.value![key]
  save({
    ...layout.value!,
    [key]: now.includes(name) ? now.filter((one) => one !== name) : [...now, name],
  })
}
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()

const targetOf = (name: string) => objects.value.find((one) => one.name === fieldOf(name)?.to)
const references = computed(() => fields.value.filter((one) => one.to))

/** Related records that could stand beside the form. */
const related = computed(() =>
  (object.value?.inverses ?? [])
    .filter((one) => !one.part)
    .map((one) => ({
      value: one.name ?? `${one.object}.${one.field}`,
      other: `${one.object}.${one.field}`,
      label: `${one.plural} (${one.field})`,
      object: objects.value.find((other) => other.name === one.object),
    })),
)
const sideObject = (records: string) =>
  related.value.find((one) => one.value === records || one.other === records)?.object
function setSide(chosen: string[]) {
  const before = layout.value!.side ?? []
  save({
    ...layout.value!,
    side: chosen.map((records) => before.find((one) => one.records === records) ?? { records, fields: [] }),
  })
}
function setSideFields(at: number, names: string[]) {
  save({
    ...layout.value!,
    side: layout.value!.side!.map((one, place) => (place === at ? { ...one, fields: names } : one)),
  })
}
const optionsOf = (of: { fields: FieldView[] } | undefined) =>
  (of?.fields ?? []).map((one) => ({ value: one.name, label: one.label }))

const columns = computed(() => layout.value?.columns ?? [])
function moveColumn(name: string, place: number) {
  const without = columns.value.filter((one) => one !== name)
  const from = columns.value.indexOf(name)
  if (from >= 0 && from < place) place -= 1
  without.splice(place, 0, name)
  save({ ...layout.value!, columns: without })
}
const shiftColumn = (name: string, by: -1 | 1) => {
  const to = columns.value.indexOf(name) + by
  if (to < 0 || to >= columns.value.length) return
  const without = columns.value.filter((one) => one !== name)
  without.splice(to, 0, name)
  save({ ...layout.value!, columns: without })
}
const sortField = computed(() => layout.value?.sort?.replace(/^-/, ''))
const falls = computed(() => layout.value?.sort?.startsWith('-') ?? false)
const setSort = (name: string | undefined, down = falls.value) =>
  save({ ...layout.value!, sort: name ? (down ? '-' : '') + name : undefined })
</script>

<template>
  <div v-if="!layout || !object" class="empty">The fields come here as soon as the text can be read.</div>
  <div v-else class="layout">
    <h2>Form</h2>
    <p class="quiet">
      Drag a field to where it belongs, or move it with Alt and the arrow keys. What is in no section comes
      last, so a new field is never lost.
    </p>
    <div class="sections">
      <div v-for="(section, at) in layout.sections" :key="at" class="section">
        <div class="head">
          <TypedInput
            :value="section.heading ?? ''"
            :disabled="readOnly"
            placeholder="no heading"
            :aria-label="`Heading of section ${at + 1}`"
            @change="setSection(at, { heading: typed($event) || undefined })"
          />
          <Select
            v-if="isExtension || section.after"
            :value="section.after"
            :options="options"
            :disabled="readOnly"
            allow-clear
            size="small"
            placeholder="comes last"
            style="width: 150px"
            :aria-label="`Field that section ${at + 1} comes after`"
            @change="(now) => setSection(at, { after: now as string | undefined })"
          />
          <template v-if="!readOnly">
            <Button
              size="small"
              type="text"
              :disabled="!at"
              :aria-label="`Move section ${at + 1} up`"
              @click="moveSection(at, -1)"
              >↑</Button
            >
            <Button
              size="small"
              type="text"
              :disabled="at === layout.sections.length - 1"
              :aria-label="`Move section ${at + 1} down`"
              @click="moveSection(at, 1)"
              >↓</Button
            >
            <Button
              size="small"
              type="text"
              :aria-label="`Take away section ${at + 1}`"
              @click="save({ ...layout, sections: layout.sections.filter((_, place) => place !== at) })"
              ><DeleteOutlined
            /></Button>
          </template>
        </div>
        <ArrangedFields
          :fields="labelled(section.fields)"
          :read-only="readOnly"
          :label="`Fields of ${section.heading ?? `section ${at + 1}`}`"
          empty="Drop fields here"
          @dropped="(field, place) => drop(field, at, place)"
          @shifted="shift"
        >
          <template #default="{ field }">
            <Checkbox
              :checked="layout.wide.includes(field)"
              :disabled="readOnly"
              @change="toggle('wide', field)"
              >whole line</Checkbox
            >
            <Button v-if="!readOnly" size="small" type="text" @click="drop(field, 'out')">Leave out</Button>
          </template>
        </ArrangedFields>
      </div>
      <div class="section">
        <div class="head">
          <strong>{{
            layout.sections.length ? 'In no section, shown last' : 'All fields in their order'
          }}</strong>
        </div>
        <ArrangedFields
          :fields="labelled(rest)"
          :read-only="readOnly"
          label="Fields in no section"
          empty="All fields have their place."
          @dropped="(field) => drop(field, 'rest')"
          @shifted="shift"
        >
          <template #default="{ field }">
            <Select
              v-if="!readOnly && layout.sections.length"
              :value="undefined"
              :options="
                layout.sections.map((one, at) => ({ value: at, label: one.heading ?? `Section ${at + 1}` }))
              "
              size="small"
              placeholder="put into …"
              style="width: 130px"
              :aria-label="`Section for ${field}`"
              @change="(to) => drop(field, Number(to))"
            />
            <Button v-if="!readOnly" size="small" type="text" @click="drop(field, 'out')">Leave out</Button>
          </template>
        </ArrangedFields>
      </div>
      <div v-if="layout.leaveOut.length" class="section">
        <div class="head"><strong>Left out of the form</strong></div>
        <ArrangedFields
          :fields="labelled(layout.leaveOut)"
          :read-only="readOnly"
          label="Fields left out"
          empty=""
          @dropped="(field) => drop(field, 'out')"
          @shifted="() => {}"
        >
          <template #default="{ field }">
            <Button v-if="!readOnly" size="small" type="text" @click="drop(field, 'rest')">Show again</Button>
          </template>
        </ArrangedFields>
      </div>
      <Button v-if="!readOnly" size="small" class="add" @click="addSection"><PlusOutlined /> Section</Button>
    </div>
    <template v-if="references.length">
      <h2>Shown with a reference</h2>
      <div class="pairs">
        <template v-for="field in references" :key="field.name">
          <span>{{ field.label }}</span>
          <Select
            :value="layout.details[field.name] ?? []"
            mode="multiple"
            :options="optionsOf(targetOf(field.name))"
            :disabled="readOnly"
            size="small"
            placeholder="only what names it"
            :aria-label="`Details of ${field.label}`"
            @change="
              (now) => save({ ...layout!, details: { ...layout!.details, [field.name]: now as string[] } })
            "
          />
        </template>
      </div>
    </template>
    <template v-if="related.length">
      <h2>At the side</h2>
      <div class="pairs">
        <span>Related records</span>
        <div class="row">
          <Checkbox
            :checked="layout.side === undefined"
            :disabled="readOnly"
            @change="save({ ...layout, side: layout.side ? undefined : [] })"
            >all there are</Checkbox
          >
          <Select
            v-if="layout.side"
            :value="layout.side.map((one) => one.records)"
            mode="multiple"
            :options="related"
            :disabled="readOnly"
            size="small"
            placeholder="none"
            style="flex: 1"
            aria-label="Related records at the side"
            @change="(now) => setSide(now as string[])"
          />
        </div>
        <template v-for="(one, at) in layout.side ?? []" :key="one.records">
          <span>{{ related.find((other) => other.value === one.records)?.label ?? one.records }}</span>
          <Select
            :value="one.fields"
            mode="multiple"
            :options="optionsOf(sideObject(one.records))"
            :disabled="readOnly"
            size="small"
            placeholder="the usual columns"
            :aria-label="`Columns of ${one.records}`"
            @change="(now) => setSideFields(at, now as string[])"
          />
        </template>
      </div>
    </template>
    <h2>List</h2>
    <div class="pairs">
      <span>Columns</span>
      <div>
        <Select
          :value="columns"
          mode="multiple"
          :options="(object.fields ?? []).map((one) => ({ value: one.name, label: one.label }))"
          :disabled="readOnly"
          size="small"
          placeholder="the usual ones"
          style="width: 100%"
          aria-label="Columns of the list"
          @change="(now) => save({ ...layout!, columns: now as string[] })"
        />
        <ArrangedFields
          v-if="columns.length > 1"
          class="columns"
          :fields="
            columns.map((name) => ({
              name,
              label: object!.fields.find((one) => one.name === name)?.label ?? name,
            }))
          "
          :read-only="readOnly"
          label="Order of the columns"
          empty=""
          @dropped="moveColumn"
          @shifted="shiftColumn"
        />
      </div>
      <span>Sorted at first by</span>
      <div class="row">
        <Select
          :value="sortField"
          :options="
            object.fields
              .filter((one) => !one.languages.length)
              .map((one) => ({ value: one.name, label: one.label }))
          "
          :disabled="readOnly"
          allow-clear
          size="small"
          placeholder="the newest first"
          style="width: 200px"
          aria-label="First sort"
          @change="(now) => setSort(now as string | undefined)"
        />
        <Checkbox v-if="sortField" :checked="falls" :disabled="readOnly" @change="setSort(sortField, !falls)"
          >falling</Checkbox
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.layout {
  display: grid;
  gap: 8px;
}
h2 {
  margin: 8px 0 0;
}
p {
  margin: 0;
}
.sections {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 10px;
  align-items: start;
}
.section {
  background: var(--sunken);
  border-radius: 8px;
  padding: 8px;
}
.head {
  display: flex;
  gap: 4px;
  align-items: center;
  margin-bottom: 6px;
  min-height: 24px;
}
.pairs {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 6px 10px;
  align-items: center;
}
.columns {
  margin-top: 6px;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
}
.add {
  justify-self: start;
}
</style>
