<script setup lang="ts">
import { Alert, Button, Input } from 'ant-design-vue'
import { ref } from 'vue'
import { fetchDocument, readDocument, type DocumentView } from '@/api/connections'

/** Takes a document of OpenAPI from a file or an address. */
const emit = defineEmits<{ read: [text: string, document: DocumentView] }>()
const address = ref('')
const problem = ref('')
const busy = ref(false)

async function take(text: () => Promise<string>) {
  busy.value = true
  problem.value = ''
  try {
    const taken = await text()
    emit('read', taken, await readDocument(taken))
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
function chosen(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) void take(() => file.text())
  input.value = ''
}
</script>

<template>
  <div class="chooser">
    <label class="file">
      From a file
      <input type="file" accept=".json,.yaml,.yml" aria-label="Document from a file" @change="chosen" />
    </label>
    <div class="row">
      <Input
        v-model:value="address"
        class="mono"
        placeholder="https://tides.example/openapi.json"
        aria-label="Document from an address"
        @press-enter="take(() => fetchDocument(address))"
      />
      <Button :loading="busy" :disabled="!address.trim()" @click="take(() => fetchDocument(address))"
        >Fetch</Button
      >
    </div>
    <Alert v-if="problem" type="error" show-icon :message="problem" />
  </div>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: 8px;
}
.file {
  display: flex;
  gap: 10px;
  align-items: center;
}
.row {
  display: flex;
  gap: 6px;
}
</style>
