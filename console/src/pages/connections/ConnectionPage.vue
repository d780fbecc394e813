<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Dropdown, Menu, MenuItem, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { findConnections, readDocument, type OperationView } from '@/api/connections'
import DraftPageHead from '@/components/DraftPageHead.vue'
import FileFindings from '@/components/FileFindings.vue'
import LabelAndPurpose from '@/components/LabelAndPurpose.vue'
import LoadState from '@/components/LoadState.vue'
import UsesDrawer from '@/components/UsesDrawer.vue'
import { useDraftFile } from '@/composables/draftFile'
import { useDraft } from '@/composables/model'
import { useSession } from '@/composables/session'
import {
  addOperation,
  readConnection,
  removeFrom,
  rename,
  setOn,
  setOnConnection,
  written,
  type Section,
} from '@/editor/connectionFile'
import GivenTable from './GivenTable.vue'
import NewerDocument from './NewerDocument.vue'
import OutgoingCard from './OutgoingCard.vue'
import PickDialog from './PickDialog.vue'
import ReachForm from './ReachForm.vue'

/** A connection: what it gives, mapped by picking places of real answers. */
const props = defineProps<{ name: string }>()
const route = useRoute()
const { may } = useSession()
const { data: draft, isLoading, error, refetch } = useDraft()
const file = computed(() => draft.value?.files.find((one) => readConnection(one.text)?.name === props.name))
const edited = useDraftFile(file)
const { text, mine, isSealed, change } = edited

const said = computed(() => readConnection(text.value))
const contractPath = computed(() =>
  file.value && said.value?.contract
    ? `${file.value.path.split('/').slice(0, -1).join('/')}/${said.value.contract}`
    : undefined,
)
const contract = computed(() => draft.value?.files.find((one) => one.path === contractPath.value)?.text)
const document = useQuery({
  queryKey: ['document', contract],
  queryFn: () => (contract.value ? readDocument(contract.value) : Promise.resolve(null)),
})
const operations = computed<OperationView[]>(() => document.data.value?.operations ?? [])
const unused = computed(() => {
  const used = [...(said.value?.lookups ?? []), ...(said.value?.calls ?? [])].map((one) => one.call)
  return operations.value.filter((one) => !used.includes(written(one)))
})

const connections = useQuery({ queryKey: ['connections'], queryFn: findConnections })
const compiled = computed(() => connections.data.value?.find((one) => one.name === props.name))
const reaching = ref(false)
const renewing = ref(false)

/** What an outside service gives of which somebody wants to know where it is used. */
const asking = ref<string>()
const picking = ref<{ section: Section; name: string }>()
const pickedRow = computed(() => {
  const from = picking.value
  const rows = from?.section === 'lookups' ? said.value?.lookups : said.value?.calls
  return rows?.find((one) => one.name === from?.name) as Record<string, string | undefined> | undefined
})
const pickedOperation = computed(() => operations.value.find((one) => written(one) === pickedRow.value?.call))
function pick(place: Record<string, string>) {
  const { section, name } = picking.value!
  let now = text.value
  for (const [key, value] of Object.entries(place)) now = setOn(now, section, name, key, value)
  change(now)
  picking.value = undefined
}

const rowsOf = (section: Section) =>
  (said.value?.[section] ?? []) as unknown as Record<string, string | undefined>[]
const SECTIONS: Section[] = ['lookups', 'calls']
const COLUMNS = {
  lookups: [
    { key: 'items', title: 'List', placeholder: 'the answer' },
    { key: 'key', title: 'Code' },
    { key: 'label', title: 'Label', placeholder: 'the code' },
    { key: 'search', title: 'Search by', placeholder: 'all are listed' },
    { key: 'keep', title: 'Kept', placeholder: 'PT10M' },
    { key: 'whenDown', title: 'New while down', placeholder: 'refuse', words: ['accept'] },
  ],
  calls: [
    { key: 'returns', title: 'Gives', placeholder: 'nothing' },
    { key: 'at', title: 'At', placeholder: 'the answer' },
    { key: 'keep', title: 'Kept', placeholder: 'each asks anew' },
  ],
}
</script>

<template>
  <div class="page">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!file" class="empty">
        There is no connection {{ name }}. <RouterLink to="/connections">To the connections</RouterLink>
      </div>
      <template v-else>
        <DraftPageHead
          :parent="{ title: 'Connections', path: '/connections' }"
          :title="said?.label ?? name"
          :file="edited"
        />
        <section class="card">
          <p v-if="!said" class="quiet">The file is not YAML just now; mend it there.</p>
          <template v-else>
            <LabelAndPurpose
              :label="said.label"
              :describe="said.describe"
              question="What it gives"
              :read-only="isSealed"
              @set="(key, value) => change(setOnConnection(text, key, value))"
            />
            <p class="line" data-test="reach">
              <template v-if="compiled?.reach">
                Reached at <code>{{ compiled.reach.address }}</code>
                <Tag v-if="compiled.leftAlone" color="red" class="tag">does not answer</Tag>
              </template>
              <template v-else>This instance has no address for it yet.</template>
              <Button v-if="may('operate') && compiled" size="small" @click="reaching = true">{{
                compiled.reach ? 'Change' : 'Give an address'
              }}</Button>
            </p>
            <p class="line">
              Contract
              <RouterLink v-if="contract !== undefined" :to="`/packages/file/${contractPath}`"
                ><code>{{ said.contract }}</code></RouterLink
              >
              <span v-else class="missing">{{ said.contract ?? 'none' }} is not there</span>
              <span v-if="document.data.value" class="quiet"
                >{{ document.data.value.title }} {{ document.data.value.version }},
                {{ operations.length }} operations</span
              >
              <Button v-if="!isSealed" size="small" @click="renewing = true">Bring in another</Button>
            </p>
            <Alert
              v-if="document.error.value"
              type="error"
              show-icon
              :message="document.error.value.message"
            />
            <template v-for="section in SECTIONS" :key="section">
              <template v-if="section === 'lookups'">
                <h2>Codes for pick lists</h2>
                <p class="quiet">
                  A field takes them as a choice
                  <code>from: {{ said.name }}.{{ said.lookups[0]?.name ?? 'codes' }}</code
                  >; the code is stored with the label of that moment.
                </p>
              </template>
              <template v-else>
                <h2>Questions that steps ask</h2>
                <p class="quiet">
                  In a function or a handler:
                  <code>let x = call {{ said.name }}.{{ said.calls[0]?.name ?? 'question' }}(...)</code>. What
                  is kept may be asked in rules as well.
                </p>
              </template>
              <GivenTable
                v-if="rowsOf(section).length"
                :rows="rowsOf(section)"
                :columns="COLUMNS[section]"
                :operations="operations"
                :read-only="isSealed"
                @set="(of, key, value) => change(setOn(text, section, of, key, value))"
                @rename="(of, to) => to && change(rename(text, section, of, to))"
                @remove="(of) => change(removeFrom(text, section, of))"
                @pick="(of) => (picking = { section, name: of })"
                @uses="(of) => (asking = `${said!.name}.${of}`)"
              />
            </template>
            <Dropdown v-if="!isSealed && unused.length" :trigger="['click']">
              <Button size="small"><PlusOutlined /> Use an operation</Button>
              <template #overlay>
                <Menu>
                  <MenuItem v-for="one in unused" :key="written(one)" @click="change(addOperation(text, one))"
                    ><code>{{ written(one) }}</code> <span class="quiet">{{ one.summary }}</span></MenuItem
                  >
                </Menu>
              </template>
            </Dropdown>
          </template>
          <FileFindings class="findings" :findings="mine" />
        </section>
        <OutgoingCard :name="name" />
        <UsesDrawer v-if="asking" :subject="{ kind: 'outside', name: asking }" @left="asking = undefined" />
        <PickDialog
          v-if="picking && pickedOperation"
          :operation="pickedOperation"
          :setting="said?.setting ?? name"
          :of="picking.section === 'lookups' ? 'lookup' : 'call'"
          :picked="pickedRow ?? {}"
          @pick="pick"
          @left="picking = undefined"
        />
        <ReachForm
          v-if="reaching && compiled"
          :connection="compiled"
          :proposed="String(route.query.address ?? '')"
          @saved="
            () => {
              reaching = false
              void connections.refetch()
            }
          "
          @left="reaching = false"
        />
        <NewerDocument
          v-if="renewing && contractPath"
          :connection="name"
          :path="contractPath"
          :used="operations.map(written)"
          @left="renewing = false"
        />
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 10px 0 0;
}
.missing {
  color: var(--bad);
}
h2 {
  font-size: 14px;
  margin: 18px 0 4px;
}
.findings {
  margin: 16px -16px -16px;
}
</style>
