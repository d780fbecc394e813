<script setup lang="ts">
import { FolderAddOutlined, ImportOutlined } from '@ant-design/icons-vue'
import { Button, Modal, Tag, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { removePackage, takeBack } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import UndoRedo from '@/components/UndoRedo.vue'
import { useDraft } from '@/composables/model'
import { useSession } from '@/composables/session'
import { packagesOf, type Differences, type PackageEntry } from '@/composables/packages'
import BringIn from './BringIn.vue'
import FileList from './FileList.vue'
import NewPackage from './NewPackage.vue'
import PackageOrigin from './PackageOrigin.vue'
import VersionsDialog from './VersionsDialog.vue'

const queries = useQueryClient()
const { data: draft, isLoading, error, refetch } = useDraft()
const preview = useQuery({
  queryKey: ['preview'],
  queryFn: () => unwrap(api.GET('/manage/v1/releases/preview')),
})
const live = useQuery({ queryKey: ['packages'], queryFn: () => unwrap(api.GET('/manage/v1/packages')) })
const liveOf = (name: string) => live.data.value?.find((one) => one.name === name)
const { me } = useSession()
const packagesOnly = computed(() => me.value?.instance.packagesOnly ?? false)
const differences = computed<Differences>(
  () => new Map((preview.data.value?.files ?? []).map((one) => [one.path, one.before ? 'changed' : 'added'])),
)
const removed = computed(() => (preview.data.value?.files ?? []).filter((one) => !one.after))
const packages = computed(() => packagesOf(draft.value, differences.value))
const making = ref(false)
const bringing = ref(false)
const looking = ref(false)

function takeAllBack() {
  const files = preview.data.value?.files ?? []
  Modal.confirm({
    title: 'Take the whole draft back?',
    content: `${files.length} files become what they are in the live release. What they are now stays among the versions.`,
    okText: 'Take it back',
    onOk: async () => {
      await takeBack()
      await queries.invalidateQueries()
      void toast.success('The draft is the same as the live release.')
    },
  })
}

function takeOut(of: PackageEntry) {
  Modal.confirm({
    title: `Take ${of.label} out of the draft?`,
    content: `Its ${of.files.length} files stay among the versions, and in the live release until the next one, which says what is lost with them.`,
    okText: 'Take it out',
    onOk: async () => {
      await removePackage(of.name)
      await queries.invalidateQueries()
    },
  })
}

/** What is gone: packages as a whole, else file by file. */
const gone = computed(() => {
  const there = new Set(packages.value.map((one) => one.name))
  const groups = new Map<string, string[]>()
  for (const { path } of removed.value) {
    const folder = path.split('/')[0]
    const name = there.has(folder) ? path : folder
    groups.set(name, [...(groups.get(name) ?? []), path])
  }
  return [...groups].map(([name, paths]) => ({ name, paths }))
})

async function bringBack(paths: string[]) {
  await takeBack(paths)
  await queries.invalidateQueries()
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Packages</h1>
      <span v-if="packages.length" class="quiet"
        >{{ draft?.files.length }} {{ draft?.files.length === 1 ? 'file' : 'files' }}</span
      >
      <div class="spacer"></div>
      <UndoRedo />
      <Button @click="looking = true">Versions</Button>
      <Button v-if="preview.data.value?.files.length" @click="takeAllBack">Take the draft back</Button>
      <Button @click="bringing = true"><ImportOutlined /> Bring one in</Button>
      <Button v-if="!packagesOnly" type="primary" @click="making = true"
        ><FolderAddOutlined /> New package</Button
      >
    </div>
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!packages.length" class="card first">
        <h2>Begin with a package</h2>
        <p>
          A package is a folder of definitions that belong together: objects, choice lists, services,
          requirements. Make your own, or bring one in that somebody hands you.
        </p>
        <div class="row">
          <Button v-if="!packagesOnly" type="primary" @click="making = true">Make a package</Button>
          <Button @click="bringing = true">Bring one in</Button>
        </div>
      </div>
      <section v-for="one in packages" :key="one.name" class="card package" :aria-label="one.label">
        <div class="row">
          <h2>{{ one.label }}</h2>
          <code class="quiet">{{ one.name }}</code>
          <Tag v-if="one.sealed" color="gold">delivered</Tag>
          <Tag v-if="one.errors" color="red">{{ one.errors }} errors</Tag>
          <span class="spacer"></span>
          <Button size="small" type="text" :aria-label="`Take out ${one.label}`" @click="takeOut(one)"
            >Take out</Button
          >
        </div>
        <PackageOrigin v-if="liveOf(one.name)" :of="liveOf(one.name)!" />
        <FileList :of="one" @changed="queries.invalidateQueries()" />
      </section>
      <section v-if="gone.length" class="card removed" aria-label="Taken out">
        <h2>Taken out since the last release:</h2>
        <ul>
          <li v-for="one in gone" :key="one.name">
            <code>{{ one.name }}</code>
            <span v-if="one.paths.length > 1" class="quiet"> {{ one.paths.length }} files</span>
            <Button size="small" type="link" @click="bringBack(one.paths)">bring back</Button>
          </li>
        </ul>
      </section>
    </LoadState>
    <NewPackage v-if="making" :taken="packages.map((one) => one.name)" @left="making = false" />
    <BringIn
      v-if="bringing"
      :there="packages.map((one) => one.name)"
      @done="((bringing = false), queries.invalidateQueries())"
      @left="bringing = false"
    />
    <VersionsDialog
      v-if="looking"
      @done="((looking = false), queries.invalidateQueries())"
      @left="looking = false"
    />
  </div>
</template>

<style scoped>
.package {
  margin-bottom: 12px;
}
.package h2 {
  margin: 0;
}
.first {
  max-width: 620px;
}
.first p {
  margin: 0 0 14px;
}
.removed h2 {
  margin: 0 0 6px;
  font-size: 14px;
}
.removed ul {
  margin: 0;
  padding-left: 18px;
}
</style>
