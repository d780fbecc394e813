<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Input, Popconfirm, Segmented, Tag, Textarea } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, unwrap } from '@/api/client'
import FileFindings from '@/components/FileFindings.vue'
import KeptState from '@/components/KeptState.vue'
import LoadState from '@/components/LoadState.vue'
import TypedInput from '@/components/TypedInput.vue'
import UndoRedo from '@/components/UndoRedo.vue'
import { STATE_WORDS, useDraftFile } from '@/composables/draftFile'
import { useDraft, useModel } from '@/composables/model'
import {
  addRequirement,
  newExample,
  nextId,
  readRequirements,
  removeExample,
  removeRequirement,
  setExample,
  setGiven,
  setRequirementText,
  type Action,
  type Example,
  type Expected,
} from '@/editor/requirementFile'
import { renameAt } from '@/editor/logicFile'
import YamlEditor from '@/editor/YamlEditor.vue'
import ActionList from './ActionList.vue'
import ExpectedForm from './ExpectedForm.vue'

/** A file of requirements, written from the model and played as it is written. */
const route = useRoute()
const wanted = computed(() => {
  const path = route.params.path
  return Array.isArray(path) ? path.join('/') : path
})
const { data: draft, isLoading, error, refetch } = useDraft()
const { objects, data: model } = useModel('OUTLINE')
const opened = computed(() => draft.value?.files.find((one) => one.path === wanted.value))
const { path, text, mine, problem, state, isSealed, change, keepMine, takeTheirs } = useDraftFile(opened)
const file = computed(() => readRequirements(text.value))
const view = ref<'Forms' | 'Text'>('Forms')
const events = computed(() => (model.value?.events ?? []).map((one) => one.name))

const played = useQuery({
  queryKey: ['requirements'],
  queryFn: () => unwrap(api.GET('/manage/v1/requirements')),
})
const proofOf = (id: string) => played.data.value?.requirements.find((one) => one.id === id)
const playOf = (id: string, name: string) => proofOf(id)?.examples.find((one) => one.name === name)

const asked = route.query.id
const chosenId = ref(typeof asked === 'string' ? asked : undefined)
const chosen = computed(
  () => file.value?.requirements.find((one) => one.id === chosenId.value) ?? file.value?.requirements[0],
)
function add() {
  const taken = [
    ...(played.data.value?.requirements ?? []).map((one) => one.id),
    ...(file.value?.requirements ?? []).map((one) => one.id),
  ]
  const id = nextId([...new Set(taken)])
  change(addRequirement(text.value, id))
  chosenId.value = id
}
function rename(to: string) {
  const from = chosen.value!.id
  change(renameAt(text.value, ['requirements'], from, to))
  chosenId.value = to
}
function set(example: Example) {
  change(setExample(text.value, chosen.value!.id, example))
}
function addExample() {
  const taken = chosen.value!.examples.map((one) => one.name)
  set(newExample(taken, objects.value[0]?.name ?? ''))
}
const renameExample = (from: string, to: string) =>
  change(renameAt(text.value, ['requirements', chosen.value!.id, 'examples'], from, to))
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div class="page writer">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!path" class="empty">
        The draft has no file {{ wanted }}.
        <RouterLink to="/requirements">Back to the requirements</RouterLink>
      </div>
      <template v-else>
        <div class="page-head">
          <RouterLink to="/requirements">Requirements</RouterLink><span class="quiet">/</span>
          <h1>{{ path.split('/').at(-1) }}</h1>
          <Tag v-if="isSealed" color="gold">delivered, not edited here</Tag>
          <Segmented v-model:value="view" :options="['Forms', 'Text']" size="small" />
          <div class="spacer"></div>
          <UndoRedo />
          <span class="quiet" data-test="state">{{ STATE_WORDS[state] }}</span>
        </div>
        <KeptState
          v-if="problem"
          class="note"
          :state="state"
          :problem="problem"
          @mine="keepMine"
          @theirs="takeTheirs"
        />
        <section v-if="view === 'Text' || !file" class="card text">
          <YamlEditor
            :text="text"
            kind="requirement"
            :diagnostics="mine"
            :read-only="isSealed"
            @update="change"
          />
        </section>
        <div v-else class="sides">
          <nav class="list" aria-label="Requirements of this file">
            <button
              v-for="one in file.requirements"
              :key="one.id"
              :class="['card', { here: one.id === chosen?.id }]"
              :data-test="`choose ${one.id}`"
              @click="chosenId = one.id"
            >
              <span class="row">
                <code>{{ one.id }}</code>
                <span class="spacer"></span>
                <Tag v-if="proofOf(one.id)?.proof === 'PROVED'" color="green">proved</Tag>
                <Tag v-else-if="proofOf(one.id)?.proof === 'FAILING'" color="red">failing</Tag>
                <Tag v-else color="gold">open</Tag>
              </span>
              <span class="said">{{ one.text }}</span>
            </button>
            <Button v-if="!isSealed" size="small" @click="add"><PlusOutlined /> Requirement</Button>
          </nav>
          <div class="main">
            <section v-if="chosen" class="card">
              <div class="row">
                <TypedInput
                  class="id mono"
                  :value="chosen.id"
                  :disabled="isSealed"
                  aria-label="Number of the requirement"
                  @change="rename(typed($event))"
                />
                <span class="spacer"></span>
                <Popconfirm
                  v-if="!isSealed"
                  title="Take away this requirement with its examples?"
                  @confirm="change(removeRequirement(text, chosen.id))"
                >
                  <Button size="small" type="text" aria-label="Take away the requirement"
                    ><DeleteOutlined
                  /></Button>
                </Popconfirm>
              </div>
              <label for="requirement-text">What was asked for, in the customer's words</label>
              <Textarea
                id="requirement-text"
                :value="chosen.text"
                :disabled="isSealed"
                :auto-size="{ minRows: 1, maxRows: 4 }"
                @update:value="(now: string) => change(setRequirementText(text, chosen!.id, now))"
              />
              <article v-for="example in chosen.examples" :key="example.name" class="example">
                <div class="row">
                  <Tag v-if="playOf(chosen.id, example.name)?.holds" color="green" data-test="holds"
                    >holds</Tag
                  >
                  <Tag v-else-if="playOf(chosen.id, example.name)" color="red">does not hold</Tag>
                  <TypedInput
                    class="name mono"
                    :value="example.name"
                    :disabled="isSealed"
                    aria-label="Name of the example"
                    @change="renameExample(example.name, typed($event))"
                  />
                  <Input
                    :value="example.label"
                    :disabled="isSealed"
                    size="small"
                    placeholder="what people call it"
                    style="width: 200px"
                    aria-label="Label of the example"
                    @change="(event) => set({ ...example, label: typed(event as Event) || undefined })"
                  />
                  <label class="today quiet">
                    on
                    <Input
                      type="date"
                      :value="example.today ?? ''"
                      :disabled="isSealed"
                      size="small"
                      style="width: 140px"
                      aria-label="Day of the example"
                      @update:value="(now: string) => set({ ...example, today: now || undefined })"
                    />
                  </label>
                  <span class="spacer"></span>
                  <Button
                    v-if="!isSealed"
                    size="small"
                    type="text"
                    :aria-label="`Take away the example ${example.name}`"
                    @click="change(removeExample(text, chosen.id, example.name))"
                    ><DeleteOutlined
                  /></Button>
                </div>
                <div
                  v-for="(said, at) in playOf(chosen.id, example.name)?.problems ?? []"
                  :key="at"
                  class="bad"
                >
                  {{ said }}
                </div>
                <h3>Given</h3>
                <ActionList
                  :model-value="example.given"
                  :objects="objects"
                  :before="file.given"
                  :only="['create']"
                  :read-only="isSealed"
                  label="Record"
                  @update:model-value="(now: Action[]) => set({ ...example, given: now })"
                />
                <h3>When</h3>
                <ActionList
                  :model-value="example.when"
                  :objects="objects"
                  :before="[...file.given, ...example.given]"
                  :read-only="isSealed"
                  label="Step"
                  @update:model-value="(now: Action[]) => set({ ...example, when: now })"
                />
                <h3>Then</h3>
                <ExpectedForm
                  :model-value="example.then"
                  :objects="objects"
                  :events="events"
                  :actions="[...file.given, ...example.given, ...example.when]"
                  label="Then"
                  :read-only="isSealed"
                  @update:model-value="(now: Expected) => set({ ...example, then: now })"
                />
              </article>
              <Button v-if="!isSealed && objects.length" size="small" class="add" @click="addExample"
                ><PlusOutlined /> Example</Button
              >
            </section>
            <section class="card">
              <h2>There before each example of this file</h2>
              <ActionList
                :model-value="file.given"
                :objects="objects"
                :before="[]"
                :only="['create']"
                :read-only="isSealed"
                label="Record"
                @update:model-value="(now: Action[]) => change(setGiven(text, now))"
              />
            </section>
          </div>
        </div>
        <FileFindings :findings="mine" />
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 12px;
  align-items: start;
}
@media (max-width: 800px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
.list {
  display: grid;
  gap: 8px;
}
.list button.card {
  text-align: left;
  font: inherit;
  color: var(--text);
  cursor: pointer;
  display: grid;
  gap: 3px;
  padding: 8px 10px;
}
.list .here {
  border-color: var(--action);
  background: var(--action-soft);
}
.said {
  overflow-wrap: anywhere;
}
.main {
  display: grid;
  gap: 12px;
}
.text {
  padding: 0;
  min-height: 420px;
  display: flex;
}
.text :deep(.editor) {
  flex: 1;
  min-height: 420px;
}
.example {
  border-top: 1px solid var(--line);
  margin-top: 12px;
  padding-top: 10px;
}
.id {
  width: 120px;
}
.name {
  width: 150px;
}
.today {
  display: inline-flex;
  gap: 4px;
  align-items: center;
}
label {
  color: var(--quiet);
  font-size: 12.5px;
}
h3 {
  margin: 8px 0 4px;
  font-size: 13px;
}
.add {
  margin-top: 10px;
}
.note {
  margin-bottom: 10px;
}
</style>
