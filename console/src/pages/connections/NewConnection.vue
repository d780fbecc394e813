<script setup lang="ts">
import { Alert, Input, Modal, Select } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { excerptOf, type DocumentView } from '@/api/connections'
import { keepFile } from '@/api/draft'
import { useDraft } from '@/composables/model'
import { pathOf, useOpenPackages } from '@/composables/packages'
import { connectionName, newConnectionText, written } from '@/editor/connectionFile'
import DocumentChooser from './DocumentChooser.vue'
import OperationTicks from './OperationTicks.vue'

/** Makes a connection from the document of a service: which of its operations are used. */
const emit = defineEmits<{ left: [] }>()
const router = useRouter()
const queries = useQueryClient()
const { data: draft } = useDraft()
const packages = useOpenPackages(draft)
const folder = ref<string>()
watch(packages, (now) => (folder.value ??= now.at(-1)?.name), { immediate: true })

const text = ref('')
const document = ref<DocumentView>()
const name = ref('')
const ticked = ref<string[]>([])
const problem = ref('')
const busy = ref(false)
const taken = computed(() =>
  (draft.value?.files ?? []).some((one) => one.path.endsWith(`/connections/${name.value.trim()}.yaml`)),
)

function read(from: string, what: DocumentView) {
  text.value = from
  document.value = what
  name.value = connectionName(what.title)
  ticked.value = []
}

async function make() {
  const wanted = name.value.trim()
  problem.value = ''
  if (!/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/.test(wanted)) {
    problem.value = 'A name has small letters, digits and single hyphens, such as tide-table.'
    return
  }
  if (taken.value) {
    problem.value = `There is a connection ${wanted} already.`
    return
  }
  busy.value = true
  try {
    const of = document.value!
    const used = of.operations.filter((one) => ticked.value.includes(written(one)))
    const excerpt = await excerptOf(text.value, wanted, ticked.value)
    await keepFile(pathOf(folder.value!, 'contract', wanted), excerpt.text)
    await keepFile(
      pathOf(folder.value!, 'connection', wanted),
      newConnectionText({ name: wanted, document: of, operations: used }),
    )
    await queries.invalidateQueries()
    await router.push({ path: `/connections/${wanted}`, query: of.address ? { address: of.address } : {} })
  } catch (wrong) {
    problem.value = (wrong as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    title="New connection"
    width="640px"
    ok-text="Make it"
    :ok-button-props="{ loading: busy, disabled: !document || !ticked.length || !folder }"
    @ok="make"
    @cancel="emit('left')"
  >
    <p class="quiet">
      From the document in which the service says what it offers (OpenAPI 3.0 or 3.1). Of it the operations
      that are ticked are kept in the package.
    </p>
    <DocumentChooser @read="read" />
    <template v-if="document">
      <p class="found">
        <strong>{{ document.title || 'A service without a title' }}</strong>
        <span class="quiet"> {{ document.version }}, {{ document.operations.length }} operations</span>
      </p>
      <div class="facts">
        <label>
          Name
          <Input v-model:value="name" class="mono" aria-label="Name" />
        </label>
        <label>
          Package
          <Select
            v-model:value="folder"
            :options="packages.map((one) => ({ value: one.name, label: one.label }))"
            placeholder="A package of yours"
            aria-label="Package"
            style="width: 100%"
          />
        </label>
      </div>
      <OperationTicks :operations="document.operations" :ticked="ticked" @tick="(now) => (ticked = now)" />
      <p v-if="!document.operations.length" class="quiet">This document offers nothing.</p>
    </template>
    <Alert v-if="problem" type="error" show-icon :message="problem" />
  </Modal>
</template>

<style scoped>
.found {
  margin: 14px 0 6px;
}
.facts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-bottom: 8px;
}
.facts label {
  display: grid;
  gap: 3px;
  font-size: 12.5px;
}
</style>
