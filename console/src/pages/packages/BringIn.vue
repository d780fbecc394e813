<script setup lang="ts">
import { Alert, Button, Modal } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { unpack } from '@/api/draft'
import { filesOfFolder, filesOfZip, type PackageFiles } from './packageFiles'

/** Brings packages into the draft: out of a folder, a zip archive, or from what ships as an example. */
const props = defineProps<{ there: string[] }>()
const emit = defineEmits<{ done: []; left: [] }>()

const examples = useQuery({
  queryKey: ['examples'],
  queryFn: () => unwrap(api.GET('/manage/v1/examples')),
  staleTime: Infinity,
})
const chosen = ref<PackageFiles>()
const problem = ref('')
const busy = ref(false)
const names = computed(() => [
  ...new Set(Object.keys(chosen.value?.files ?? {}).map((path) => path.split('/')[0])),
])
const replaced = computed(() => names.value.filter((one) => props.there.includes(one)))

async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  problem.value = ''
  chosen.value = undefined
  if (!files.length) return
  try {
    const zip = files.length === 1 && files[0].name.endsWith('.zip')
    chosen.value = zip ? await filesOfZip(files[0]) : await filesOfFolder(files)
  } catch (wrong) {
    problem.value = (wrong as Error).message
  }
}

async function bring() {
  busy.value = true
  problem.value = ''
  try {
    const { files, packed } = chosen.value!
    if (packed) await unpack(packed)
    else await unwrap(api.POST('/manage/v1/draft/push', { body: { files } }))
    emit('done')
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
    title="Bring packages in"
    ok-text="Bring in"
    :ok-button-props="{ loading: busy, disabled: !chosen }"
    @ok="bring"
    @cancel="emit('left')"
  >
    <div class="form">
      <label class="file">
        A packed package, or a zip archive with a folder for each package
        <input type="file" accept=".zip" @change="take" />
      </label>
      <label class="file">
        The folder of a package
        <input type="file" webkitdirectory multiple @change="take" />
      </label>
      <div v-for="one in examples.data.value" :key="one.label" class="example">
        <div>
          <strong>{{ one.label }}</strong>
          <div class="quiet">{{ one.describe }}</div>
        </div>
        <Button
          size="small"
          @click="((chosen = { from: one.label, files: one.files, left: [] }), (problem = ''))"
          >Choose it</Button
        >
      </div>
      <Alert v-if="chosen" type="info" data-test="chosen">
        <template #message>
          {{ chosen.from }}: {{ Object.keys(chosen.files).length }} files of {{ names.join(', ') }}.
          <template v-if="chosen.packed">It is checked against its manifest on the way in. </template>
          <template v-if="replaced.length"
            >{{ replaced.join(', ') }} {{ replaced.length === 1 ? 'is' : 'are' }} here already and will be
            replaced whole.</template
          >
          <div v-if="chosen.left.length" class="quiet">
            Left out, since they are no definition files: {{ chosen.left.slice(0, 5).join(', ')
            }}{{ chosen.left.length > 5 ? ` and ${chosen.left.length - 5} more` : '' }}.
          </div>
        </template>
      </Alert>
      <Alert v-if="problem" type="error" show-icon :message="problem" />
      <p class="quiet">
        They come into the draft; nothing is released by it. The draft is taken back on this page.
      </p>
    </div>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
.file {
  display: grid;
  gap: 4px;
}
.example {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
p {
  margin: 0;
}
</style>
