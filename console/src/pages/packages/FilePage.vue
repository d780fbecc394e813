<script setup lang="ts">
import { Button, Dropdown, Menu, MenuItem, Modal, Tag, message as toast } from 'ant-design-vue'
import { MoreOutlined } from '@ant-design/icons-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { removeFile, takeBack } from '@/api/draft'
import ElsewhereNote from '@/components/ElsewhereNote.vue'
import FileFindings from '@/components/FileFindings.vue'
import KeptState from '@/components/KeptState.vue'
import LoadState from '@/components/LoadState.vue'
import UsesDrawer from '@/components/UsesDrawer.vue'
import UndoRedo from '@/components/UndoRedo.vue'
import { STATE_WORDS, useDraftFile } from '@/composables/draftFile'
import { useDraft } from '@/composables/model'
import { definedName, kindOf } from '@/composables/packages'
import type { Subject } from '@/editor/uses'
import { readService } from '@/editor/serviceFile'
import YamlEditor from '@/editor/YamlEditor.vue'
import { idOf } from '@/pages/services/forms'
import RenameFile from './RenameFile.vue'
import VersionsDialog from './VersionsDialog.vue'

/** Any file of a package, whatever state it is in. */
const props = defineProps<{ path: string }>()
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { data: draft, isLoading, error, refetch } = useDraft()
const file = computed(() => draft.value?.files.find((one) => one.path === props.path))
const {
  path: opened,
  text,
  mine,
  elsewhere,
  problem,
  state,
  isSealed,
  change,
  settle,
  keepMine,
  takeTheirs,
} = useDraftFile(file)

const kind = computed(() => kindOf(props.path))
const name = computed(() => definedName({ path: props.path, text: text.value }))
/** The page that shows what the file defines better than its text does. */
const page = computed(() => {
  if (!name.value) return undefined
  if (kind.value === 'object' || kind.value === 'extension') return `/model/${name.value}`
  if (kind.value === 'service') return designOf(text.value)
  if (kind.value === 'route') return `/model/routes/${name.value}`
  if (kind.value === 'connection') return `/connections/${name.value}`
  return kind.value === 'requirement' ? '/requirements' : undefined
})
function designOf(text: string) {
  const service = readService(text)
  return service && `/services/${idOf(service)}/design`
}
const renaming = ref<'rename' | 'duplicate'>()
const looking = ref(false)
const editor = ref<InstanceType<typeof YamlEditor>>()

watch(
  () => !!opened.value && opened.value === props.path,
  async (there) => {
    const line = Number(route.query.line)
    if (!there || !line) return
    await nextTick()
    editor.value?.reveal(line)
  },
  { immediate: true },
)

const asking = ref(false)
/** What others may name: a choice list or an event has no page of its own. */
const subject = computed<Subject | undefined>(() =>
  name.value && (kind.value === 'choices' || kind.value === 'event')
    ? { kind: kind.value, name: name.value }
    : undefined,
)
function remove() {
  Modal.confirm({
    title: `Take ${props.path} out of the draft?`,
    content: 'It stays among the versions, and in the live release until the next one.',
    okText: 'Take it out',
    onOk: async () => {
      await removeFile(props.path)
      await router.push('/packages')
      await queries.invalidateQueries()
    },
  })
}

async function back() {
  try {
    await settle()
    await takeBack([props.path])
    await reopen()
    void toast.success('It is as in the live release.')
  } catch (wrong) {
    void toast.error((wrong as Error).message)
  }
}

/** Reads the file again after it was changed beside the editor. */
async function reopen() {
  await queries.invalidateQueries()
  if (file.value) await takeTheirs()
  else await router.push('/packages')
}
</script>

<template>
  <div class="page file">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!file && opened !== props.path" class="empty">
        There is no file {{ props.path }} in the draft.
        <RouterLink to="/packages">Back to the packages</RouterLink>
      </div>
      <template v-else>
        <div class="page-head">
          <RouterLink to="/packages">Packages</RouterLink><span class="quiet">/</span>
          <h1 class="mono">{{ props.path }}</h1>
          <Tag v-if="isSealed" color="gold">delivered, not edited here</Tag>
          <Tag v-else-if="kind === 'other'" color="gold">no definition is looked for here</Tag>
          <div class="spacer"></div>
          <UndoRedo />
          <span class="quiet" data-test="state">{{ STATE_WORDS[state] }}</span>
          <RouterLink v-if="page" :to="page">Open {{ name }}</RouterLink>
          <Button v-if="subject" type="text" @click="asking = true">Used by</Button>
          <Button @click="looking = true">Versions</Button>
          <Dropdown v-if="!isSealed" trigger="click">
            <Button aria-label="More to do with this file"><MoreOutlined /></Button>
            <template #overlay>
              <Menu>
                <MenuItem @click="renaming = 'rename'">Rename</MenuItem>
                <MenuItem @click="renaming = 'duplicate'">Duplicate</MenuItem>
                <MenuItem @click="back">Take back to the live release</MenuItem>
                <MenuItem @click="remove">Take out of the draft</MenuItem>
              </Menu>
            </template>
          </Dropdown>
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
        <section class="card text">
          <YamlEditor
            v-if="opened === props.path"
            :key="opened"
            ref="editor"
            :text="text"
            :kind="kind === 'seed' ? 'other' : kind"
            :diagnostics="mine"
            :read-only="isSealed"
            @update="change"
          />
          <FileFindings
            :findings="mine"
            hint="Ctrl-Space shows what can stand here."
            @reveal="(line, column) => editor?.reveal(line, column)"
          />
        </section>
        <RenameFile
          v-if="renaming"
          :path="props.path"
          :text="text"
          :as="renaming"
          :taken="draft?.files.map((one) => one.path) ?? []"
          @left="renaming = undefined"
        />
        <VersionsDialog
          v-if="looking"
          :path="props.path"
          @done="((looking = false), reopen())"
          @left="looking = false"
        />
        <UsesDrawer v-if="asking && subject" :subject="subject" @left="asking = false" />
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.file {
  display: flex;
  flex-direction: column;
}
.text {
  flex: 1;
  min-height: 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.text :deep(.editor) {
  flex: 1;
  min-height: 0;
}
h1 {
  font-size: 15px;
}
.note {
  margin-bottom: 10px;
}
</style>
