<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Form, FormItem, Input, Modal, Segmented, Select, Table, Tag } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { keepFile } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import { useDraft, useModel } from '@/composables/model'
import { beginningOf, pathOf, useOpenPackages } from '@/composables/packages'
import ModelDiagram from './ModelDiagram.vue'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { data: model, objects, isLoading, error, refetch } = useModel('DRAFT')
const { data: draft } = useDraft()
const search = ref('')
const view = computed({
  get: () => (route.query.view === 'list' ? 'List' : 'Diagram'),
  set: (now: string) => void router.replace({ query: now === 'List' ? { view: 'list' } : {} }),
})

const routes = computed(() => model.value?.routes ?? [])
const drawn = computed({
  get: () => routes.value.find((one) => one.name === route.query.route),
  set: (now) => void router.replace({ query: now ? { route: now.name } : {} }),
})

const found = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  return objects.value.filter((object) => {
    const text = [
      object.name,
      object.label,
      object.describe ?? '',
      ...object.fields.map((field) => field.name + ' ' + field.label),
    ]
      .join(' ')
      .toLowerCase()
    return words.every((word) => text.includes(word))
  })
})
const broken = computed(() => draft.value?.diagnostics.filter((one) => one.severity === 'ERROR') ?? [])

const columns = [
  { title: 'Object', key: 'name', dataIndex: 'name' },
  { title: 'What a record is', key: 'describe', dataIndex: 'describe', ellipsis: true },
  { title: 'Package', key: 'packageName', dataIndex: 'packageName', width: 120 },
  { title: 'Key', key: 'key', width: 140 },
  { title: 'Fields', key: 'fields', width: 80, align: 'right' as const },
  { title: 'Line items', key: 'parts', width: 110 },
]

const adding = ref(false)
const newName = ref('')
const newPackage = ref<string>()
const problem = ref('')
/** Out of the files, so that one that is not released, or has errors, counts as well. */
const open = useOpenPackages(draft)
const packages = computed(() => open.value.map((one) => one.name))

async function add() {
  problem.value = ''
  const name = newName.value.trim()
  const folder = newPackage.value ?? packages.value[0]
  if (!/^[A-Z][A-Za-z0-9]{0,59}$/.test(name)) {
    problem.value =
      'A name begins with a capital letter and has only letters and digits, such as BoatTrailer.'
    return
  }
  if (!folder) {
    problem.value = 'There is no package to put it in; make one on the page Packages first.'
    return
  }
  const path = pathOf(folder, 'object', name)
  if (draft.value?.files.some((file) => file.path === path)) {
    problem.value = `There is a file ${path} already.`
    return
  }
  try {
    await keepFile(path, beginningOf('object', name))
    await queries.invalidateQueries()
    adding.value = false
    await router.push(`/model/${name}`)
  } catch (wrong) {
    problem.value = (wrong as Error).message
  }
}
</script>

<template>
  <div class="page model">
    <div class="page-head">
      <h1>Model</h1>
      <span class="quiet">{{ objects.length }} objects in {{ model?.packages.length ?? 0 }} packages</span>
      <div class="spacer"></div>
      <Input
        v-model:value="search"
        allow-clear
        placeholder="Find an object or field"
        style="width: 220px"
        aria-label="Find"
      />
      <Segmented v-model:value="view" :options="['Diagram', 'List']" />
      <Button type="primary" @click="((adding = true), (newName = ''))"><PlusOutlined /> New object</Button>
    </div>
    <Alert v-if="broken.length" type="warning" show-icon class="broken">
      <template #message>
        The draft has {{ broken.length }} {{ broken.length === 1 ? 'error' : 'errors' }}, so the live release
        is shown. First:
        <RouterLink :to="{ path: `/packages/file/${broken[0].file}`, query: { line: broken[0].line } }"
          ><code>{{ broken[0].file }}:{{ broken[0].line }}</code></RouterLink
        >
        {{ broken[0].message }}
      </template>
    </Alert>
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!objects.length" class="empty">
        <template v-if="packages.length">
          There are no objects yet. An object is what records are kept of: a customer, an order, an
          inspection.
          <p><Button type="primary" @click="adding = true">Define the first object</Button></p>
        </template>
        <template v-else>
          Objects stand in packages, and there is none yet.
          <p><RouterLink to="/packages">Make a package</RouterLink></p>
        </template>
      </div>
      <div v-if="routes.length && view === 'Diagram'" class="routes">
        <span class="quiet">Routes</span>
        <template v-for="one in routes" :key="one.name">
          <Button
            size="small"
            :type="drawn?.name === one.name ? 'primary' : 'default'"
            :aria-pressed="drawn?.name === one.name"
            @click="drawn = drawn?.name === one.name ? undefined : one"
            >{{ one.label }}</Button
          >
          <RouterLink v-if="drawn?.name === one.name" :to="`/model/routes/${one.name}`">Open it</RouterLink>
        </template>
      </div>
      <ModelDiagram
        v-if="objects.length && view === 'Diagram'"
        class="fill"
        :objects="objects"
        :found="found.map((one) => one.name)"
        :route="drawn"
        :sealed="model?.packages.filter((one) => one.sealed).map((one) => one.name) ?? []"
      />
      <Table
        v-else-if="objects.length"
        :columns="columns"
        :data-source="found"
        row-key="name"
        size="small"
        :pagination="false"
        :custom-row="
          (one) => ({ onClick: () => router.push(`/model/${one.name}`), style: 'cursor: pointer' })
        "
      >
        <template #bodyCell="{ column, record }">
          <RouterLink v-if="column.key === 'name'" :to="`/model/${record.name}`">{{
            record.name
          }}</RouterLink>
          <code v-else-if="column.key === 'key'">{{ record.key.join(', ') }}</code>
          <template v-else-if="column.key === 'fields'">{{ record.fields.length }}</template>
          <template v-else-if="column.key === 'parts'">
            <Tag v-for="part in record.parts" :key="part.name">{{ part.name }}</Tag>
          </template>
        </template>
        <template #emptyText><div class="empty">No object and no field is called like this.</div></template>
      </Table>
    </LoadState>
    <Modal v-model:open="adding" title="New object" ok-text="Create" @ok="add">
      <Form layout="vertical" @submit.prevent="add">
        <FormItem label="Name" extra="In the singular, with a capital letter: BoatTrailer.">
          <Input v-model:value="newName" aria-label="Name of the object" />
        </FormItem>
        <FormItem label="Package">
          <Select
            :value="newPackage ?? packages[0]"
            :options="packages.map((one) => ({ value: one, label: one }))"
            @change="(now) => (newPackage = String(now))"
          />
        </FormItem>
        <Alert v-if="problem" type="error" show-icon :message="problem" />
      </Form>
    </Modal>
  </div>
</template>

<style scoped>
.model {
  display: flex;
  flex-direction: column;
}
.fill {
  flex: 1;
  min-height: 0;
}
.broken {
  margin-bottom: 12px;
}
.routes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  margin-bottom: 8px;
}
</style>
