<script setup lang="ts">
import { DownloadOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { text } from '@/api/http'
import LoadState from '@/components/LoadState.vue'
import { prettyAnswer } from './tried'
import { indented } from './xml'

/** A contract in one of its forms, to read and to take away. */
const props = defineProps<{
  address: string
  describe: string
  type: string
  file: string
  /** What it is made from; the live release when absent. */
  from?: string
}>()

const contract = useQuery({
  queryKey: computed(() => ['contract', props.address]),
  queryFn: () => text(props.address),
})
const shown = computed(() => {
  const content = contract.data.value ?? ''
  return props.type.endsWith('json') ? prettyAnswer(content) : indented(content)
})

function download() {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([shown.value], { type: props.type }))
  link.download = props.file
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <div class="row top">
    <span class="quiet">{{ describe }}, made from {{ from ?? 'the live release' }}</span>
    <div class="spacer"></div>
    <Button :disabled="!contract.data.value" @click="download"><DownloadOutlined /> Download</Button>
  </div>
  <LoadState :loading="contract.isLoading.value" :error="contract.error.value" @retry="contract.refetch()">
    <pre tabindex="0" class="contract" data-test="contract">{{ shown }}</pre>
  </LoadState>
</template>

<style scoped>
.top {
  margin-bottom: 8px;
}
.contract {
  margin: 0;
  padding: 12px;
  background: var(--surface);
  border: 1px solid var(--line);
  border-radius: 8px;
  max-height: calc(100vh - 290px);
  overflow: auto;
  font-size: 12px;
}
</style>
