<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Segmented, Tag } from 'ant-design-vue'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import ElsewhereNote from '@/components/ElsewhereNote.vue'
import FileFindings from '@/components/FileFindings.vue'
import KeptState from '@/components/KeptState.vue'
import LoadState from '@/components/LoadState.vue'
import UsesDrawer from '@/components/UsesDrawer.vue'
import UndoRedo from '@/components/UndoRedo.vue'
import { STATE_WORDS, useDraftFile } from '@/composables/draftFile'
import { languagesOf } from '@/composables/languages'
import { useDraft, useModel } from '@/composables/model'
import { kindOf } from '@/composables/packages'
import type { LogicText } from '@/api/logic'
import { choicesName } from '@/editor/choicesFile'
import { readConnection } from '@/editor/connectionFile'
import { extendedName, lineOf, objectName, readFields, setOnField, type Place } from '@/editor/objectFile'
import { addPart, partNames } from '@/editor/partFile'
import type { Subject } from '@/editor/uses'
import YamlEditor from '@/editor/YamlEditor.vue'
import ArrivingFields from './ArrivingFields.vue'
import DataEffects from './DataEffects.vue'
import ExtendButton from './ExtendButton.vue'
import ChecksTab from './ChecksTab.vue'
import ChoicesDialog from './ChoicesDialog.vue'
import FieldGrid from './FieldGrid.vue'
import FormulasTab from './FormulasTab.vue'
import FunctionsTab from './FunctionsTab.vue'
import LayoutTab from './LayoutTab.vue'
import LifecycleTab from './LifecycleTab.vue'
import ObjectFacts from './ObjectFacts.vue'
import PartHead from './PartHead.vue'
import ReactionsTab from './ReactionsTab.vue'
import RulesTab from './RulesTab.vue'
import TryIt from './TryIt.vue'

const props = defineProps<{ object: string }>()
const { data: draft, isLoading, error, refetch } = useDraft()
const { objects: live } = useModel('LIVE')

const files = computed(() =>
  (draft.value?.files ?? []).filter(
    (one) => objectName(one.text) === props.object || extendedName(one.text) === props.object,
  ),
)
const wantedPath = ref<string>()
const file = computed(
  () =>
    files.value.find((one) => one.path === wantedPath.value) ??
    files.value.find((one) => objectName(one.text) === props.object),
)
const TEXT_KEY = 'sandpiper.text'
const LAYOUT = 'Form and list'
const LOGIC = ['Formulas', 'Checks', 'Rules', 'Lifecycle', 'Functions', 'Reactions']
const tried = ref<LogicText>()
const isLogic = computed(() => LOGIC.includes(chosen.value))
const beside = ref<'Text' | 'Try it'>('Text')
const chosen = ref('Fields')

const { path, text, mine, elsewhere, problem, state, isSealed, change, settle, keepMine, takeTheirs } =
  useDraftFile(file)
const place = computed<Place>(() =>
  chosen.value === 'Fields' ? ['fields'] : ['parts', chosen.value, 'fields'],
)
const languages = computed(() => languagesOf(draft.value, path.value))
const rows = computed(() => readFields(text.value, place.value, languages.value[0]))
const parts = computed(() => partNames(text.value))
/** The name of the line items that are shown, or undefined. */
const part = computed(() => (parts.value.includes(chosen.value) ? chosen.value : undefined))
function addLines() {
  const added = addPart(text.value)
  change(added.text)
  chosen.value = added.name
}
watch(parts, (now, before) => {
  if (before.includes(chosen.value) && !now.includes(chosen.value)) chosen.value = 'Fields'
})
/** The choice lists of the draft, by what they call themselves. */
const listFiles = computed(() =>
  (draft.value?.files ?? [])
    .filter((one) => kindOf(one.path) === 'choices')
    .map((one) => ({ ...one, name: choicesName(one.text) }))
    .filter((one): one is { path: string; text: string; name: string } => !!one.name),
)
/** Codes that outside services give. */
const lookups = computed(() =>
  (draft.value?.files ?? [])
    .filter((one) => kindOf(one.path) === 'connection')
    .flatMap((one) => {
      const connection = readConnection(one.text)
      return (connection?.lookups ?? []).map((lookup) => `${connection!.name}.${lookup.name}`)
    }),
)
const editedList = ref<{ field: string; file?: { path: string; text: string }; name?: string }>()
function openList(field: string, name: string | undefined) {
  const file = listFiles.value.find((one) => one.name === name)
  const proposed = field.charAt(0).toUpperCase() + field.slice(1)
  editedList.value = { field, file, name: name ?? proposed }
}
async function listSaved(name: string) {
  const { field, file } = editedList.value!
  editedList.value = undefined
  if (!file) change(setOnField(text.value, place.value, field, 'choices', name))
}
/** Who never looks at the text has the whole width for the rest. */
const withText = ref(localStorage.getItem(TEXT_KEY) !== 'off')
function toggleText() {
  withText.value = !withText.value
  localStorage.setItem(TEXT_KEY, withText.value ? 'on' : 'off')
}
const asking = ref<Subject>()
/** Fields that other files add to the object. */
const added = computed(() =>
  files.value
    .filter((one) => one.path !== path.value && extendedName(one.text) === props.object)
    .map((one) => ({
      path: one.path,
      fields: (readFields(one.text, ['fields']) ?? []).map((row) => row.name),
    }))
    .filter((one) => one.fields.length),
)
const tabs = computed(() => [
  'Fields',
  ...parts.value,
  LAYOUT,
  ...LOGIC.filter((tab) => tab !== 'Lifecycle' || objectName(text.value) !== undefined),
])
const TAB = {
  Formulas: FormulasTab,
  Checks: ChecksTab,
  Rules: RulesTab,
  Lifecycle: LifecycleTab,
  Functions: FunctionsTab,
  Reactions: ReactionsTab,
}
const tab = computed(() => TAB[chosen.value as keyof typeof TAB])
function look(logic: LogicText) {
  tried.value = logic
  beside.value = 'Try it'
}

async function open(now: string) {
  await settle()
  wantedPath.value = now
  chosen.value = 'Fields'
}
const editor = ref<InstanceType<typeof YamlEditor>>()
async function reveal(line: number, column?: number) {
  beside.value = 'Text'
  withText.value = true
  await nextTick()
  editor.value?.reveal(line, column)
}
// An account of a request leads to what it ran, by name.
const asked = useRoute().query.at
watch(
  () => files.value.length > 0,
  async (there) => {
    if (!there || typeof asked !== 'string') return
    const found = files.value.find((one) => lineOf(one.text, asked))
    if (!found) return
    await open(found.path)
    await nextTick()
    await reveal(lineOf(found.text, asked)!)
  },
  { immediate: true },
)
const released = computed(() => {
  const object = live.value.find((one) => one.name === props.object)
  const fields =
    chosen.value === 'Fields'
      ? object?.fields
      : object?.parts.find((part) => part.name === chosen.value)?.fields
  return fields?.map((field) => field.name) ?? []
})
const releasedParts = computed(
  () => live.value.find((one) => one.name === props.object)?.parts.map((one) => one.name) ?? [],
)
const others = computed(() =>
  (draft.value?.files ?? []).map((one) => objectName(one.text)).filter((name): name is string => !!name),
)
</script>

<template>
  <div class="page object">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!file && !path" class="empty">
        No file of the draft defines an object {{ object }}.
        <RouterLink to="/model">Back to the model</RouterLink>
      </div>
      <template v-else>
        <div class="page-head">
          <RouterLink to="/model">Model</RouterLink><span class="quiet">/</span>
          <h1>{{ object }}</h1>
          <Segmented
            v-if="files.length > 1"
            :value="path"
            :options="files.map((one) => one.path)"
            @change="(now) => open(String(now))"
          />
          <RouterLink v-else :to="`/packages/file/${path}`" class="quiet"
            ><code>{{ path }}</code></RouterLink
          >
          <Tag v-if="isSealed" color="gold">delivered, not edited here</Tag>
          <ExtendButton
            v-if="isSealed"
            :object="object"
            :owner="path.split('/')[0]"
            :extended="files.map((one) => one.path)"
            @made="open"
          />
          <div class="spacer"></div>
          <UndoRedo />
          <Button size="small" type="text" :aria-pressed="withText" @click="toggleText">{{
            withText ? 'Hide text' : 'Show text'
          }}</Button>
          <span class="quiet" data-test="state">
            {{ STATE_WORDS[state] }}
          </span>
          <Button size="small" type="text" @click="asking = { kind: 'object', name: object }">Used by</Button>
          <RouterLink :to="`/data/${object}`">Records</RouterLink>
          <RouterLink to="/releases">Release</RouterLink>
        </div>
        <KeptState
          v-if="problem"
          class="note"
          :state="state"
          :problem="problem"
          @mine="keepMine"
          @theirs="takeTheirs"
        />
        <ElsewhereNote :errors="elsewhere" class="note" />
        <DataEffects v-if="!mine.some((one) => one.severity === 'ERROR')" :object="object" />
        <div :class="['sides', { alone: !withText }]">
          <section class="card side">
            <div class="tabs">
              <Segmented v-model:value="chosen" :options="tabs" class="parts" />
              <Button v-if="!isSealed && rows" size="small" type="text" @click="addLines"
                ><PlusOutlined /> Line items</Button
              >
            </div>
            <ObjectFacts
              v-if="chosen === 'Fields' && rows && objectName(text)"
              :text="text"
              :languages="languages"
              :read-only="isSealed"
              @update="change"
            />
            <PartHead
              v-if="part && rows"
              :key="part"
              :text="text"
              :part="part"
              :languages="languages"
              :released="releasedParts"
              :read-only="isSealed"
              @update="change"
              @renamed="(now) => (chosen = now)"
            />
            <component
              :is="tab"
              v-if="isLogic && rows"
              :key="path"
              :text="text"
              :object="object"
              :read-only="isSealed"
              @update="change"
              @chosen="look"
            />
            <LayoutTab
              v-else-if="chosen === LAYOUT && rows"
              :key="path"
              :path="path"
              :text="text"
              :object="object"
              :read-only="isSealed"
              @update="change"
            />
            <FieldGrid
              v-else-if="rows"
              :rows="rows"
              :place="place"
              :text="text"
              :object="object"
              :objects="others"
              :lists="listFiles.map((one) => one.name)"
              :lookups="lookups"
              :released="released"
              :languages="languages"
              :read-only="isSealed"
              @update="change"
              @list="openList"
              @uses="(field) => (asking = { kind: 'field', object, name: field })"
            />
            <p v-if="chosen === 'Fields' && added.length" class="quiet added">
              Added elsewhere:
              <template v-for="one in added" :key="one.path">
                <a href="#" @click.prevent="open(one.path)">{{ one.fields.join(', ') }}</a>
                by {{ one.path.split('/')[0] }}.
              </template>
            </p>
            <ArrivingFields v-if="chosen === 'Fields' || part" :object="object" :part="part" />
            <div v-if="!rows" class="empty">
              The text beside is not YAML just now; mend it there and the fields come back.
            </div>
          </section>
          <section v-if="withText" class="card side text">
            <Segmented
              v-if="isLogic"
              v-model:value="beside"
              :options="['Text', 'Try it']"
              block
              class="beside"
            />
            <TryIt
              v-if="isLogic && beside === 'Try it'"
              :object="object"
              :logic="tried"
              :is-released="live.some((one) => one.name === object)"
            />
            <YamlEditor
              v-else
              ref="editor"
              :text="text"
              :kind="kindOf(path)"
              :diagnostics="mine"
              :read-only="isSealed"
              @update="change"
            />
            <FileFindings :findings="mine" @reveal="reveal" />
          </section>
        </div>
        <UsesDrawer v-if="asking" :subject="asking" @left="asking = undefined" />
        <ChoicesDialog
          v-if="editedList"
          :folder="path.split('/')[0]"
          :file="editedList.file"
          :name="editedList.name"
          :taken="listFiles.map((one) => one.name)"
          :read-only="!!editedList.file && (draft?.sealed ?? []).includes(editedList.file.path.split('/')[0])"
          @saved="listSaved"
          @left="editedList = undefined"
        />
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.object {
  display: flex;
  flex-direction: column;
}
.sides {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 2.3fr) minmax(0, 1fr);
  gap: 12px;
}
.alone {
  grid-template-columns: minmax(0, 1fr);
}
.side {
  min-height: 0;
  overflow: auto;
}
.text {
  padding: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.text :deep(.editor) {
  flex: 1;
  min-height: 0;
}
.note {
  margin-bottom: 10px;
}
.added {
  margin: 10px 0 0;
}
.beside {
  margin: 8px;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin-bottom: 10px;
}
</style>
