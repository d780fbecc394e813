<script setup lang="ts">
import { Alert, Modal } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { excerptOf, type DocumentView } from '@/api/connections'
import { keepFile } from '@/api/draft'
import { written } from '@/editor/connectionFile'
import DocumentChooser from './DocumentChooser.vue'
import OperationTicks from './OperationTicks.vue'

/** Brings in another document of a service, and says how it differs from the one there is. */
const props = defineProps<{ connection: string; path: string; used: string[] }>()
const emit = defineEmits<{ left: [] }>()
const queries = useQueryClient()
const text = ref('')
const document = ref<DocumentView>()
const ticked = ref<string[]>([])
const differences = ref<string[]>()
const problem = ref('')
const busy = ref(false)
const gone = computed(() => {
  const offered = document.value?.operations.map(written) ?? []
  return props.used.filter((one) => !offered.includes(one))
})

async function read(from: string, what: DocumentView) {
  text.value = from
  document.value = what
  ticked.value = what.operations.map(written).filter((one) => props.used.includes(one))
  try {
    differences.value = (await excerptOf(from, props.connection, ticked.value)).differences
  } catch (error) {
    problem.value = (error as Error).message
  }
}

async function keep() {
  busy.value = true
  problem.value = ''
  try {
    const excerpt = await excerptOf(text.value, props.connection, ticked.value)
    await keepFile(props.path, excerpt.text)
    await queries.invalidateQueries()
    emit('left')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    title="Bring in another document"
    width="640px"
    ok-text="Keep it"
    :ok-button-props="{ loading: busy, disabled: !document }"
    @ok="keep"
    @cancel="emit('left')"
  >
    <DocumentChooser @read="read" />
    <template v-if="document">
      <Alert
        v-if="differences && !differences.length && !gone.length"
        type="success"
        show-icon
        class="told"
        message="What is used is the same in it."
      />
      <Alert v-else-if="differences" type="warning" show-icon class="told" message="What is used differs:">
        <template #description>
          <ul>
            <li v-for="one in differences" :key="one">{{ one }}</li>
          </ul>
        </template>
      </Alert>
      <OperationTicks :operations="document.operations" :ticked="ticked" @tick="(now) => (ticked = now)" />
    </template>
    <Alert v-if="problem" type="error" show-icon :message="problem" />
  </Modal>
</template>

<style scoped>
.told {
  margin: 12px 0 8px;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
