<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, CheckboxGroup, Segmented, Tag } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, unwrap } from '@/api/client'
import { keepFile } from '@/api/draft'
import ElsewhereNote from '@/components/ElsewhereNote.vue'
import FileFindings from '@/components/FileFindings.vue'
import KeptState from '@/components/KeptState.vue'
import LoadState from '@/components/LoadState.vue'
import { STATE_WORDS, useDraftFile } from '@/composables/draftFile'
import { useDraft, useModel } from '@/composables/model'
import { addResource, nextVersionText, readService, setOnService } from '@/editor/serviceFile'
import YamlEditor from '@/editor/YamlEditor.vue'
import ContractPane from './ContractPane.vue'
import DesignPreview from './DesignPreview.vue'
import FieldTicks from './FieldTicks.vue'
import { formsOf, idOf, PROTOCOLS } from './forms'
import NewResource, { type NewResource as Made } from './NewResource.vue'
import ResourceFacts from './ResourceFacts.vue'
import ServiceExtras from './ServiceExtras.vue'

/** A service in the draft: its resources to tick, beside what callers will get. */
const props = defineProps<{ service: string }>()
const router = useRouter()
const queries = useQueryClient()
const { data: draft, isLoading, error, refetch } = useDraft()
const { objects } = useModel('DRAFT')

const file = computed(() =>
  draft.value?.files.find((one) => {
    const found = readService(one.text)
    return found && idOf(found) === props.service
  }),
)
const { path, text, diagnostics, mine, elsewhere, problem, state, isSealed, change, keepMine, takeTheirs } =
  useDraftFile(file)
const design = computed(() => readService(text.value))
const resourceName = ref('')
const resource = computed(
  () => design.value?.resources.find((one) => one.name === resourceName.value) ?? design.value?.resources[0],
)
const object = computed(() => objects.value.find((one) => one.name === resource.value?.object))
const hasErrors = computed(() => diagnostics.value.some((one) => one.severity === 'ERROR'))

const services = useQuery({
  queryKey: ['services', 'DRAFT'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services', { params: { query: { of: 'DRAFT' } } })),
})
const drafted = computed(() =>
  services.data.value?.find((one) => design.value && idOf(one) === idOf(design.value)),
)

const beside = ref('Example')
const forms = computed(() => formsOf(design.value?.protocols ?? []))
const formTitle = ref('')
const form = computed(() => forms.value.find((one) => one.title === formTitle.value) ?? forms.value[0])

const adding = ref(false)
function add(made: Made) {
  change(addResource(text.value, made.resource, made.object, made.offered))
  resourceName.value = made.resource
  adding.value = false
}

const said = ref('')
/** Copies the service as its next version; this one goes on as it is. */
async function next() {
  const now = design.value!
  const versions = (draft.value?.files ?? [])
    .map((one) => readService(one.text))
    .filter((one) => one?.name === now.name)
    .map((one) => one!.version)
  const version = Math.max(...versions) + 1
  const target = `${path.value.split('/')[0]}/services/${now.name}-v${version}.yaml`
  try {
    await keepFile(target, nextVersionText(text.value, version))
    await queries.invalidateQueries()
    await router.push(`/services/${now.name}-v${version}/design`)
  } catch (wrong) {
    said.value = (wrong as Error).message
  }
}
</script>

<template>
  <div class="page design">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!path" class="empty">
        No file of the draft defines a service {{ props.service }}.
        <RouterLink to="/services">Back to the services</RouterLink>
      </div>
      <template v-else>
        <div class="page-head">
          <RouterLink :to="`/services/${props.service}`">Services</RouterLink><span class="quiet">/</span>
          <h1>{{ design?.label ?? drafted?.label ?? props.service }}</h1>
          <Tag v-if="design" color="cyan">v{{ design.version }}</Tag>
          <Tag v-if="isSealed" color="gold">delivered, not edited here</Tag>
          <CheckboxGroup
            v-if="design"
            :value="design.protocols"
            :options="PROTOCOLS.map((one) => ({ value: one.name, label: one.title }))"
            :disabled="isSealed"
            @change="(now) => change(setOnService(text, 'protocols', now))"
          />
          <div class="spacer"></div>
          <span class="quiet" data-test="state">{{ STATE_WORDS[state] }}</span>
          <Button v-if="design && !isSealed" size="small" @click="next">Next version</Button>
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
        <Alert v-if="said" type="error" show-icon :message="said" class="note" />
        <ElsewhereNote :errors="elsewhere" class="note" />
        <div class="sides">
          <section class="card side">
            <div class="row resources">
              <Segmented
                v-if="design?.resources.length"
                :value="resource?.name"
                :options="design.resources.map((one) => one.name)"
                aria-label="Resource"
                @change="(now) => (resourceName = String(now))"
              />
              <span v-if="object" class="quiet">
                shows <RouterLink :to="`/model/${object.name}`">{{ object.name }}</RouterLink>
              </span>
              <div class="spacer"></div>
              <Button v-if="!isSealed && design" size="small" @click="adding = true"
                ><PlusOutlined /> Resource</Button
              >
            </div>
            <template v-if="resource && object">
              <ResourceFacts
                :text="text"
                :resource="resource"
                :object="object"
                :read-only="isSealed"
                @update="change"
                @removed="resourceName = ''"
              />
              <FieldTicks
                :text="text"
                :resource="resource"
                :object="object"
                :objects="objects"
                :read-only="isSealed"
                @update="change"
              />
            </template>
            <div v-else-if="resource" class="empty">There is no object {{ resource.object }}.</div>
            <div v-else-if="design" class="empty">
              The service shows nothing yet.
              <Button type="link" @click="adding = true">Add a resource for an object</Button>
            </div>
            <div v-else class="empty">
              The text beside is not YAML just now; mend it there and the fields come back.
            </div>
            <ServiceExtras
              v-if="design"
              :text="text"
              :design="design"
              :read-only="isSealed"
              @update="change"
            />
          </section>
          <section class="card side beside">
            <Segmented
              v-model:value="beside"
              :options="['Example', 'Contract', 'Text']"
              block
              class="switch"
            />
            <YamlEditor
              v-if="beside === 'Text'"
              :text="text"
              :diagnostics="mine"
              :read-only="isSealed"
              @update="change"
            />
            <div v-else-if="hasErrors || !drafted" class="empty">
              Shown as soon as the draft has no errors.
            </div>
            <DesignPreview
              v-else-if="beside === 'Example'"
              :service="drafted"
              :resource="resource?.name ?? ''"
            />
            <div v-else class="contract">
              <Segmented
                :value="form.title"
                :options="forms.map((one) => one.title)"
                class="forms"
                aria-label="Form of the contract"
                @change="(now) => (formTitle = String(now))"
              />
              <ContractPane
                :key="form.at"
                :address="`/manage/v1/contracts/${drafted.name}/v${drafted.version}/${form.at}?of=DRAFT`"
                :describe="form.describe"
                :type="form.type"
                :file="`${idOf(drafted)}.${form.ending}`"
                from="the draft"
              />
            </div>
            <FileFindings :findings="mine" />
          </section>
        </div>
      </template>
    </LoadState>
    <NewResource
      :open="adding"
      :objects="objects"
      :services="services.data.value ?? []"
      :folders="[]"
      :files="draft?.files ?? []"
      :taken="design?.resources.map((one) => one.name) ?? []"
      @close="adding = false"
      @make="add"
    />
  </div>
</template>

<style scoped>
.design {
  display: flex;
  flex-direction: column;
}
.sides {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(0, 1fr);
  gap: 12px;
}
.side {
  min-height: 0;
  overflow: auto;
}
.beside {
  padding: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.beside > :not(.switch, .said) {
  flex: 1;
  min-height: 0;
}
.switch {
  margin: 8px;
}
.contract {
  overflow: auto;
  padding: 0 12px 12px;
}
.forms {
  margin-bottom: 8px;
}
.resources {
  margin-bottom: 10px;
}
.note {
  margin-bottom: 10px;
}
</style>
