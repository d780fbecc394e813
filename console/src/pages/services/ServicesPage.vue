<script setup lang="ts">
import { CheckOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Button, Segmented, TabPane, Tabs, Tag } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, unwrap, type ResourceView } from '@/api/client'
import { keepFile } from '@/api/draft'
import { call } from '@/api/http'
import { at } from '@/api/place'
import LoadState from '@/components/LoadState.vue'
import { useDraft, useModel } from '@/composables/model'
import { useSession } from '@/composables/session'
import { useOpenPackages } from '@/composables/packages'
import { addResource, newServiceText } from '@/editor/serviceFile'
import type { Contract } from './contract'
import { fieldRows } from './fields'
import { formsOf, idOf, PROTOCOLS } from './forms'
import NewResource, { type NewResource as Made } from './NewResource.vue'
import CallAs from './CallAs.vue'
import CallersPane from './CallersPane.vue'
import ContractPane from './ContractPane.vue'
import TrafficPane from './TrafficPane.vue'
import TryCall from './TryCall.vue'
import TryOData from './TryOData.vue'
import TrySoap from './TrySoap.vue'

const props = defineProps<{ service?: string }>()
const services = useQuery({
  queryKey: ['services'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
})
/** Without a name in the address, the first. */
const chosen = computed(() =>
  props.service ? services.data.value?.find((one) => idOf(one) === props.service) : services.data.value?.[0],
)
const tab = ref('fields')
const { may } = useSession()
const speaks = (protocol: string) => !!chosen.value?.protocols.includes(protocol)
const contractAddress = computed(() => `/manage/v1/contracts/${chosen.value?.name}/v${chosen.value?.version}`)
const contract = useQuery({
  queryKey: computed(() => ['contract', chosen.value && idOf(chosen.value)]),
  queryFn: () => call<Contract>('GET', `${contractAddress.value}/openapi.json`),
  enabled: computed(() => speaks('rest')),
})
const spoken = computed(() => PROTOCOLS.filter((one) => speaks(one.name)))
const addresses = computed(() =>
  spoken.value.map((one) => at(`/${one.path}/${chosen.value?.name}/v${chosen.value?.version}`)),
)
const forms = computed(() => formsOf(chosen.value?.protocols ?? []))
const formTitle = ref('')
const form = computed(() => forms.value.find((one) => one.title === formTitle.value) ?? forms.value[0]!)
const protocolTitle = ref('')
const protocol = computed(
  () => spoken.value.find((one) => one.title === protocolTitle.value) ?? spoken.value[0]!,
)
const presetText = (resource: ResourceView) =>
  Object.entries(resource.presets)
    .map(([name, value]) => `${name} = ${value}`)
    .join(', ')

const router = useRouter()
const queries = useQueryClient()
const { data: draft } = useDraft()
const { objects } = useModel('DRAFT')
const drafted = useQuery({
  queryKey: ['services', 'DRAFT'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services', { params: { query: { of: 'DRAFT' } } })),
})
/** Services that wait in the draft to be released. */
const waiting = computed(() =>
  (drafted.data.value ?? []).filter(
    (one) => !services.data.value?.some((other) => idOf(other) === idOf(one)),
  ),
)
const open = useOpenPackages(draft)
const folders = computed(() => open.value.map((one) => one.name))
const adding = ref(false)
const making = ref(false)
const problem = ref('')

async function make(made: Made) {
  making.value = true
  problem.value = ''
  const path = `${made.folder}/services/${made.service}.yaml`
  const text = addResource(
    newServiceText(made.service, made.protocols),
    made.resource,
    made.object,
    made.offered,
  )
  try {
    await keepFile(path, text)
    await queries.invalidateQueries()
    adding.value = false
    await router.push(`/services/${made.service}-v1/design`)
  } catch (wrong) {
    problem.value = (wrong as Error).message
  } finally {
    making.value = false
  }
}

const ORDER = ['create', 'read', 'update', 'query']
const columnsOf = (resource: ResourceView) => ORDER.filter((one) => one in resource.operations)
</script>

<template>
  <div class="page">
    <LoadState :loading="services.isLoading.value" :error="services.error.value" @retry="services.refetch()">
      <div v-if="!services.data.value?.length" class="empty">
        <h1 class="none">No service is published yet</h1>
        <p>
          A service lets outside systems and apps read and write records: over REST, OData and SOAP at once.
        </p>
        <p v-for="one in waiting" :key="idOf(one)">
          <RouterLink :to="`/services/${idOf(one)}/design`">{{ one.label }} waits in the draft</RouterLink>
        </p>
        <Button v-if="folders.length && objects.length" type="primary" @click="adding = true"
          >Make the first service</Button
        >
        <RouterLink v-else-if="folders.length" to="/model">Define an object first</RouterLink>
        <RouterLink v-else to="/packages">Make a package first</RouterLink>
      </div>
      <div v-else class="columns">
        <nav class="services" aria-label="Services">
          <div class="row">
            <h1>Services</h1>
            <div class="spacer"></div>
            <Button v-if="folders.length" type="primary" size="small" @click="adding = true"
              ><PlusOutlined /> New</Button
            >
          </div>
          <RouterLink
            v-for="one in services.data.value"
            :key="idOf(one)"
            :to="`/services/${idOf(one)}`"
            :class="['card', { here: one === chosen }]"
          >
            <strong>{{ one.label }}</strong>
            <span class="quiet">{{ one.name }} v{{ one.version }}</span>
            <span class="quiet">{{ one.resources.map((resource) => resource.name).join(', ') }}</span>
          </RouterLink>
          <RouterLink
            v-for="one in waiting"
            :key="idOf(one)"
            :to="`/services/${idOf(one)}/design`"
            class="card waiting"
          >
            <strong>{{ one.label }}</strong>
            <span class="quiet">{{ one.name }} v{{ one.version }}, in the draft</span>
          </RouterLink>
        </nav>
        <section v-if="!chosen" class="main empty">
          <RouterLink v-if="waiting.some((one) => idOf(one) === service)" :to="`/services/${service}/design`"
            >{{ service }} waits in the draft; release it to call it</RouterLink
          >
          <p v-else>There is no service {{ service }} that is live.</p>
        </section>
        <section v-else class="main">
          <div class="page-head">
            <h1>{{ chosen.label }}</h1>
            <Tag color="cyan">v{{ chosen.version }}</Tag>
            <code v-for="one in addresses" :key="one" class="quiet">{{ one }}</code>
            <div class="spacer"></div>
            <RouterLink :to="`/services/${idOf(chosen)}/design`">Design</RouterLink>
          </div>
          <p v-if="chosen.describe" class="quiet lead">{{ chosen.describe }}</p>
          <Tabs v-model:active-key="tab">
            <TabPane key="fields" tab="Resources">
              <div v-for="resource in chosen.resources" :key="resource.name" class="card resource">
                <div class="row">
                  <h2>{{ resource.name }}</h2>
                  <span class="quiet"
                    >shows {{ resource.object }}, by {{ resource.key.join(', ') || 'id' }}</span
                  >
                  <div class="spacer"></div>
                  <Tag v-for="one in Object.keys(resource.operations)" :key="one">{{ one }}</Tag>
                  <Tag v-for="one in resource.calls" :key="one.address" color="cyan">{{ one.address }}</Tag>
                </div>
                <p v-if="resource.where" class="quiet note">
                  Only records for which <code>{{ resource.where }}</code>
                </p>
                <p v-if="presetText(resource)" class="quiet note">
                  New records have <code>{{ presetText(resource) }}</code>
                </p>
                <table>
                  <thead>
                    <tr>
                      <th>Field</th>
                      <th v-for="column in columnsOf(resource)" :key="column">{{ column }}</th>
                      <th v-if="resource.filterable.length">filter</th>
                      <th v-if="resource.sortable.length">sort</th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="row in fieldRows(resource)" :key="row.path">
                      <td
                        :style="{ paddingLeft: `${row.depth * 16 + 4}px` }"
                        :class="{ quiet: !row.isField }"
                      >
                        <code>{{ row.name }}</code>
                      </td>
                      <td v-for="column in columnsOf(resource)" :key="column">
                        <CheckOutlined
                          v-if="resource.operations[column].includes(row.path)"
                          :aria-label="`${column} has ${row.path}`"
                        />
                      </td>
                      <td v-if="resource.filterable.length">
                        <CheckOutlined v-if="resource.filterable.includes(row.path)" />
                      </td>
                      <td v-if="resource.sortable.length">
                        <CheckOutlined v-if="resource.sortable.includes(row.path)" />
                      </td>
                    </tr>
                  </tbody>
                </table>
              </div>
            </TabPane>
            <TabPane key="contract" tab="Contract">
              <Segmented
                :value="form.title"
                :options="forms.map((one) => one.title)"
                class="switch"
                aria-label="Form of the contract"
                @change="(now) => (formTitle = String(now))"
              />
              <ContractPane
                :key="`${idOf(chosen)} ${form.at}`"
                :address="`${contractAddress}/${form.at}`"
                :describe="form.describe"
                :type="form.type"
                :file="`${idOf(chosen)}.${form.ending}`"
              />
            </TabPane>
            <TabPane key="try" tab="Try a call">
              <div class="row switch">
                <Segmented
                  v-if="spoken.length > 1"
                  :value="protocol.title"
                  :options="spoken.map((one) => one.title)"
                  aria-label="Protocol"
                  @change="(now) => (protocolTitle = String(now))"
                />
                <CallAs v-if="may('access')" />
              </div>
              <TryCall v-if="protocol.name === 'rest'" :service="chosen" :contract="contract.data.value" />
              <TrySoap v-else-if="protocol.name === 'soap'" :service="chosen" />
              <TryOData v-else :service="chosen" />
            </TabPane>
            <TabPane v-if="may('access')" key="callers" tab="Callers">
              <CallersPane :service="chosen" @tried="tab = 'try'" />
            </TabPane>
            <TabPane key="traffic" tab="Traffic">
              <TrafficPane :service="chosen" />
            </TabPane>
          </Tabs>
        </section>
      </div>
    </LoadState>
    <NewResource
      :open="adding"
      :objects="objects"
      :services="drafted.data.value ?? []"
      :folders="folders"
      :files="draft?.files ?? []"
      :taken="[]"
      :busy="making"
      :problem="problem"
      @close="adding = false"
      @make="make"
    />
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 24px;
}
.services {
  display: grid;
  gap: 10px;
  align-content: start;
}
.services .waiting {
  border-style: dashed;
}
.services h1 {
  margin-bottom: 6px;
}
.services a {
  display: grid;
  color: var(--text);
  padding: 10px 12px;
}
.services a:hover {
  text-decoration: none;
  border-color: var(--action);
}
.here {
  border-color: var(--action);
  background: var(--action-soft);
}
.main .page-head {
  margin-bottom: 2px;
}
.lead {
  margin: 0 0 6px;
}
.resource {
  margin-bottom: 12px;
}
.note {
  margin: 4px 0 0;
}
h2 {
  margin: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 8px;
}
th {
  font-weight: 500;
  color: var(--quiet);
  text-align: center;
  width: 78px;
  padding: 4px;
  border-bottom: 1px solid var(--line);
}
th:first-child {
  text-align: left;
  width: auto;
}
td {
  text-align: center;
  padding: 3px 4px;
  border-bottom: 1px solid var(--line);
  color: var(--action);
}
td:first-child {
  text-align: left;
  color: var(--text);
}
.switch {
  margin-bottom: 10px;
}
</style>
