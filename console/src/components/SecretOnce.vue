<script setup lang="ts">
import { CopyOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Modal, message as toast } from 'ant-design-vue'
import { moment } from '@/composables/format'

/** Shows a secret the only time it can be seen. */
const props = defineProps<{ secret: string; until?: string }>()
const emit = defineEmits<{ noted: [] }>()

async function copy() {
  await navigator.clipboard.writeText(props.secret)
  void toast.success('Copied.')
}
</script>

<template>
  <Modal open title="The secret, this once" :closable="false" :mask-closable="false">
    <p><slot></slot></p>
    <div class="row">
      <code class="secret" data-test="secret">{{ secret }}</code>
      <Button aria-label="Copy" @click="copy"><CopyOutlined /></Button>
    </div>
    <Alert
      v-if="until"
      type="info"
      class="until"
      :message="`The old secret stays right until ${moment(until)}.`"
    />
    <template #footer>
      <Button type="primary" @click="emit('noted')">I have noted it</Button>
    </template>
  </Modal>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
.secret {
  flex: 1;
  padding: 8px 10px;
  background: var(--sunken);
  border-radius: 6px;
  overflow-wrap: anywhere;
}
.until {
  margin-top: 10px;
}
</style>
