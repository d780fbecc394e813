<script setup lang="ts">
import { Alert, Input, Modal } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { keepFile, moveFile } from '@/api/draft'

/** Gives a file another path, or makes a second one with the same text. */
const props = defineProps<{ path: string; text: string; as: 'rename' | 'duplicate'; taken: string[] }>()
const emit = defineEmits<{ left: [] }>()

const router = useRouter()
const queries = useQueryClient()
const to = ref(props.as === 'rename' ? props.path : props.path.replace(/\.(yaml|csv)$/, '-copy.$1'))
const problem = ref('')
const busy = ref(false)

async function go() {
  const wanted = to.value.trim()
  problem.value = ''
  if (!/^[a-z0-9-]+\/[A-Za-z0-9._/-]+\.(yaml|csv)$/.test(wanted) || wanted.includes('..')) {
    problem.value = 'A file is named like yard/objects/boat.yaml.'
    return
  }
  if (props.taken.includes(wanted)) {
    problem.value = `There is a file ${wanted} already.`
    return
  }
  busy.value = true
  try {
    if (props.as === 'rename') await moveFile(props.path, wanted)
    else await keepFile(wanted, props.text)
    emit('left')
    await router.replace(`/packages/file/${wanted}`)
    await queries.invalidateQueries()
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
    :title="as === 'rename' ? 'Rename the file' : 'Duplicate the file'"
    :ok-text="as === 'rename' ? 'Rename' : 'Duplicate'"
    :ok-button-props="{ loading: busy, disabled: to === path }"
    @ok="go"
    @cancel="emit('left')"
  >
    <form class="form" @submit.prevent="go">
      <label>
        Path
        <Input v-model:value="to" class="mono" autofocus aria-label="Path" />
      </label>
      <p class="quiet">
        {{
          as === 'rename'
            ? 'What the file defines keeps its name; that stands in its text.'
            : 'Give what it defines another name in its text, or both define the same.'
        }}
      </p>
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
p {
  margin: 0;
}
</style>
