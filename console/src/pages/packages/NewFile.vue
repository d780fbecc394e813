<script setup lang="ts">
import { Alert, Input, Modal, Select } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { keepFile } from '@/api/draft'
import { useModel } from '@/composables/model'
import { KINDS, pathOf, type FileKind } from '@/composables/packages'

/** Asks for a name and makes a file that is right to begin with. */
const props = defineProps<{ folder: string; kind: FileKind; taken: string[] }>()
const emit = defineEmits<{ made: []; left: [] }>()

const router = useRouter()
const { objects } = useModel('DRAFT')
const words = computed(() => KINDS.find((one) => one.kind === props.kind)!)
const name = ref('')
const problem = ref('')
const busy = ref(false)
const title = computed(
  () =>
    ({
      object: 'New object',
      extension: 'New extension',
      choices: 'New choice list',
      service: 'New service',
      event: 'New event',
      route: 'New route',
      connection: 'New connection',
      contract: 'New contract',
      'service-extension': 'Add to a service',
      requirement: 'New requirements',
    })[props.kind as string],
)
const extendable = computed(() => objects.value.filter((one) => one.packageName !== props.folder))

/** Where what was made is gone on with. */
const pageOf = (wanted: string, path: string) =>
  props.kind === 'object'
    ? `/model/${wanted}`
    : props.kind === 'route'
      ? `/model/routes/${wanted}`
      : props.kind === 'connection'
        ? `/connections/${wanted}`
        : `/packages/file/${path}`

async function make() {
  const wanted = name.value.trim()
  problem.value = ''
  if (!words.value.form.test(wanted)) {
    problem.value = words.value.formSaid
    return
  }
  const path = pathOf(props.folder, props.kind, wanted)
  if (props.taken.includes(path)) {
    problem.value = `There is a file ${path} already.`
    return
  }
  busy.value = true
  try {
    await keepFile(path, words.value.begin(wanted))
    emit('made')
    await router.push(pageOf(wanted, path))
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
    :title="title"
    ok-text="Create"
    :ok-button-props="{ loading: busy, disabled: !name.trim() }"
    @ok="make"
    @cancel="emit('left')"
  >
    <form class="form" @submit.prevent="make">
      <p class="quiet">{{ words.what }}</p>
      <label v-if="kind === 'extension'">
        Object of another package
        <Select
          :value="name || undefined"
          :options="
            extendable.map((one) => ({ value: one.name, label: `${one.label} (${one.packageName})` }))
          "
          show-search
          option-filter-prop="label"
          placeholder="Choose one"
          aria-label="Object that is extended"
          @change="(now) => (name = String(now))"
        />
        <span v-if="!extendable.length" class="quiet">There is no object in another package.</span>
      </label>
      <label v-else>
        Name
        <Input v-model:value="name" autofocus aria-label="Name" />
        <span class="quiet">{{ words.formSaid }}</span>
      </label>
      <Alert v-if="problem" type="error" show-icon :message="problem" />
    </form>
  </Modal>
</template>

<style scoped>
.form,
label {
  display: grid;
  gap: 6px;
}
.form {
  gap: 12px;
}
p {
  margin: 0;
}
</style>
