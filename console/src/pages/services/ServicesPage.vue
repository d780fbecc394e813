<script setup lang="ts">
import { CheckOutlined, DownloadOutlined } from '@ant-design/icons-vue'
import { Button, TabPane, Tabs, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, unwrap, type ResourceView } from '@/api/client'
import { call, text } from '@/api/http'
import LoadState from '@/components/LoadState.vue'
import type { Contract } from './contract'
import { fieldRows } from './fields'
import { indented } from './xml'
import TryCall from './TryCall.vue'
import TrySoap from './TrySoap.vue'

const props = defineProps<{ service?: string }>()
const services = useQuery({
  queryKey: ['services'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
})
const idOf = (one: { name: string; version: number }) => `${one.name}-v${one.version}`
const chosen = computed(
  () =>
    services.data.value?.find((one) => idOf(one) === props.service) ??
    services.data.value?.find((one) => one.name === 'berth-desk') ??
    services.data.value?.[0],
)
const tab = ref('fields')
const speaks = (protocol: string) => !!chosen.value?.protocols.includes(protocol)
const contractAddress = computed(() => `/manage/v1/contracts/${chosen.value?.name}/v${chosen.value?.version}`)
const contract = useQuery({
  queryKey: computed(() => ['contract', chosen.value && idOf(chosen.value)]),
  queryFn: () => call<Contract>('GET', `${contractAddress.value}/openapi.json`),
  enabled: computed(() => speaks('rest')),
})
const wsdl = useQuery({
  queryKey: computed(() => ['wsdl', chosen.value && idOf(chosen.value)]),
  queryFn: () => text(`${contractAddress.value}/wsdl`),
  enabled: computed(() => speaks('soap')),
})
const addresses = computed(() => {
  const end = `${chosen.value?.name}/v${chosen.value?.version}`
  return [...(speaks('rest') ? [`/api/${end}`] : []), ...(speaks('soap') ? [`/soap/${end}`] : [])]
})
// A tab of a protocol the next service does not speak would leave the page empty.
watch(chosen, () => {
  const ofRest = ['contract', 'try'].includes(tab.value)
  const ofSoap = ['wsdl', 'soap'].includes(tab.value)
  if ((ofRest && !speaks('rest')) || (ofSoap && !speaks('soap'))) tab.value = 'fields'
})
const presetText = (resource: ResourceView) =>
  Object.entries(resource.presets)
    .map(([name, value]) => `${name} = ${value}`)
    .join(', ')

const ORDER = ['create', 'read', 'update', 'query']
const columnsOf = (resource: ResourceView) => ORDER.filter((one) => one in resource.operations)

function download(content: string, type: string, ending: string) {
  const blob = new Blob([content], { type })
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = `${idOf(chosen.value!)}.${ending}`
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <div class="page">
    <LoadState :loading="services.isLoading.value" :error="services.error.value" @retry="services.refetch()">
      <div v-if="!chosen" class="empty">
        No service is published yet. Write a file such as <code>services/berth-desk.yaml</code>, push and
        release it.
      </div>
      <div v-else class="columns">
        <nav class="services" aria-label="Services">
          <h1>Services</h1>
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
        </nav>
        <section class="main">
          <div class="page-head">
            <h1>{{ chosen.label }}</h1>
            <Tag color="cyan">v{{ chosen.version }}</Tag>
            <code v-for="one in addresses" :key="one" class="quiet">{{ one }}</code>
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
                  <Tag v-for="one in resource.transitions" :key="one.address" color="cyan">{{
                    one.address
                  }}</Tag>
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
            <TabPane v-if="speaks('soap')" key="wsdl" tab="Contract (WSDL)">
              <div class="row top">
                <span class="quiet">WSDL 1.1 with its schema, made from the live release</span>
                <div class="spacer"></div>
                <Button
                  :disabled="!wsdl.data.value"
                  @click="download(wsdl.data.value ?? '', 'text/xml', 'wsdl')"
                  ><DownloadOutlined /> Download</Button
                >
              </div>
              <LoadState :loading="wsdl.isLoading.value" :error="wsdl.error.value" @retry="wsdl.refetch()">
                <pre class="contract">{{ indented(wsdl.data.value ?? '') }}</pre>
              </LoadState>
            </TabPane>
            <TabPane v-if="speaks('soap')" key="soap" tab="Try a call (SOAP)">
              <TrySoap :service="chosen" />
            </TabPane>
            <TabPane v-if="speaks('rest')" key="contract" tab="Contract">
              <div class="row top">
                <span class="quiet">OpenAPI 3.1, made from the live release</span>
                <div class="spacer"></div>
                <Button
                  :disabled="!contract.data.value"
                  @click="
                    download(JSON.stringify(contract.data.value, null, 2), 'application/json', 'openapi.json')
                  "
                  ><DownloadOutlined /> Download</Button
                >
              </div>
              <LoadState
                :loading="contract.isLoading.value"
                :error="contract.error.value"
                @retry="contract.refetch()"
              >
                <pre class="contract" data-test="contract">{{
                  JSON.stringify(contract.data.value, null, 2)
                }}</pre>
              </LoadState>
            </TabPane>
            <TabPane v-if="speaks('rest')" key="try" tab="Try a call">
              <TryCall :service="chosen" :contract="contract.data.value" />
            </TabPane>
          </Tabs>
        </section>
      </div>
    </LoadState>
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
.top {
  margin-bottom: 8px;
}
.contract {
  margin: 0;
  padding: 12px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: 8px;
  max-height: calc(100vh - 250px);
  overflow: auto;
  font-size: 12px;
}
</style>
