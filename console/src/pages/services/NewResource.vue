<script setup lang="ts">
import { Alert, CheckboxGroup, Form, FormItem, Input, Modal, Segmented, Select, Tag } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import type { ServiceView } from '@/api/client'
import { readService, resourceName, type Offered } from '@/editor/serviceFile'
import type { DesignModel } from './designTree'
import { idOf, PROTOCOLS } from './forms'

interface Named extends DesignModel {
  label: string
  plural: string
}
/** What was decided: a resource of an object, in a service of its own when that has a name. */
export interface NewResource {
  object: Named
  resource: string
  offered: Offered
  service: string
  protocols: string[]
  folder: string
}

/** Begins a service for an object, or another resource of a service; what there is already is shown first. */
const props = defineProps<{
  open: boolean
  objects: Named[]
  services: ServiceView[]
  /** The packages a new service can be in; none when a resource is added to a service that is there. */
  folders: string[]
  /** The files that are there, so that no name is taken twice. */
  files: { path: string; text: string }[]
  /** The names of resources that are taken. */
  taken: string[]
  busy?: boolean
  problem?: string
}>()
const emit = defineEmits<{ close: []; make: [made: NewResource] }>()

const isService = computed(() => props.folders.length > 0)
const objectName = ref<string>()
const object = computed(() => props.objects.find((one) => one.name === objectName.value))
const resource = ref('')
const service = ref('')
const folder = ref<string>()
const protocols = ref(['rest'])
const offer = ref('Create and change too')
const said = ref('')
const OFFERS: Record<string, Offered> = {
  'Read and find': { create: false, read: true, update: false, query: true },
  'Create too': { create: true, read: true, update: false, query: true },
  'Create and change too': { create: true, read: true, update: true, query: true },
}

watch(object, (now) => {
  if (!now) return
  resource.value = resourceName(now.plural)
  service.value = `${resource.value}-desk`
})
watch(
  () => props.open,
  (now) => {
    if (now) {
      objectName.value = undefined
      resource.value = ''
      service.value = ''
      said.value = ''
    }
  },
)

const existing = computed(() =>
  props.services.flatMap((one) =>
    one.resources
      .filter((shown) => shown.object === objectName.value)
      .map((shown) => ({
        id: idOf(one),
        label: one.label,
        version: one.version,
        resource: shown.name,
        can: [...Object.keys(shown.operations), ...shown.calls.map((call) => call.address)],
      })),
  ),
)

function make() {
  const names = /^[a-z][a-z0-9-]{1,59}$/
  said.value = !object.value
    ? 'Choose the object it shows.'
    : !names.test(resource.value)
      ? 'A resource is called with small letters, digits and hyphens, such as orders.'
      : props.taken.includes(resource.value)
        ? `There is a resource ${resource.value} already; the same object can be shown again under another name.`
        : isService.value && !names.test(service.value)
          ? 'A service is called with small letters, digits and hyphens, such as order-desk.'
          : isService.value && props.files.some((file) => readService(file.text)?.name === service.value)
            ? `There is a service ${service.value} already; open it to add a resource or a version.`
            : isService.value && !protocols.value.length
              ? 'Choose at least one protocol.'
              : ''
  if (said.value || !object.value) return
  emit('make', {
    object: object.value,
    resource: resource.value,
    offered: OFFERS[offer.value],
    service: service.value,
    protocols: protocols.value,
    folder: folder.value ?? props.folders[0] ?? '',
  })
}
</script>

<template>
  <Modal
    :open="open"
    :title="isService ? 'New service' : 'Another resource'"
    :ok-text="isService ? 'Make the service' : 'Add the resource'"
    :confirm-loading="busy"
    width="600px"
    @ok="make"
    @cancel="emit('close')"
  >
    <Form layout="vertical">
      <FormItem label="Object it shows">
        <Select
          v-model:value="objectName"
          show-search
          placeholder="Choose an object"
          aria-label="Object it shows"
          :options="objects.map((one) => ({ value: one.name, label: `${one.label} (${one.name})` }))"
          :filter-option="
            (words: string, option?: { label?: string }) =>
              (option?.label ?? '').toLowerCase().includes(words.toLowerCase())
          "
        />
      </FormItem>
      <div v-if="object" class="there" data-test="existing">
        <template v-if="existing.length">
          <strong>What shows {{ object.label }} already</strong>
          <div v-for="one in existing" :key="one.id + one.resource" class="row">
            <RouterLink :to="`/services/${one.id}`" @click="emit('close')"
              >{{ one.label }} v{{ one.version }}, {{ one.resource }}</RouterLink
            >
            <span class="can"
              ><Tag v-for="can in one.can" :key="can">{{ can }}</Tag></span
            >
          </div>
        </template>
        <span v-else class="quiet">No service shows {{ object.label }} yet.</span>
      </div>
      <template v-if="object">
        <div class="two">
          <FormItem v-if="isService" label="Name of the service">
            <Input v-model:value="service" aria-label="Name of the service" />
          </FormItem>
          <FormItem label="Name of the resource, in addresses">
            <Input v-model:value="resource" aria-label="Name of the resource" />
          </FormItem>
        </div>
        <FormItem label="To begin with, callers may" extra="Every field and operation can be ticked next.">
          <Segmented v-model:value="offer" :options="Object.keys(OFFERS)" aria-label="What callers may" />
        </FormItem>
        <div v-if="isService" class="two">
          <FormItem label="Protocols">
            <CheckboxGroup
              v-model:value="protocols"
              :options="PROTOCOLS.map((one) => ({ value: one.name, label: one.title }))"
            />
          </FormItem>
          <FormItem v-if="folders.length > 1" label="Package">
            <Select
              :value="folder ?? folders[0]"
              :options="folders.map((value) => ({ value }))"
              aria-label="Package"
              @change="(now) => (folder = String(now))"
            />
          </FormItem>
        </div>
      </template>
      <Alert v-if="said || problem" type="error" show-icon :message="said || problem" />
    </Form>
  </Modal>
</template>

<style scoped>
.there {
  background: var(--sunken);
  border: 1px solid var(--line);
  border-radius: 8px;
  padding: 8px 12px;
  margin-bottom: 14px;
  display: grid;
  gap: 4px;
  max-height: 170px;
  overflow: auto;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.can {
  margin-left: auto;
}
</style>
