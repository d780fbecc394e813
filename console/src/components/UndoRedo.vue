<script setup lang="ts">
import { RedoOutlined, UndoOutlined } from '@ant-design/icons-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { Button, Tooltip, message as toast } from 'ant-design-vue'
import { onBeforeUnmount, onMounted } from 'vue'
import { useJournal } from '@/composables/journal'

/** Takes back and does again what was changed in the draft, also by Ctrl-Z and Ctrl-Shift-Z beside an input. */
const { undo, redo, canUndo, canRedo, nextUndo, nextRedo } = useJournal()
const queries = useQueryClient()

async function run(what: () => Promise<void>) {
  try {
    await what()
    await queries.invalidateQueries()
  } catch (error) {
    void toast.error((error as Error).message)
  }
}

function onKey(event: KeyboardEvent) {
  // Where nothing has the focus the key is the window's.
  const at = event.target
  const types = at instanceof Element && at.closest('input, textarea, [contenteditable=true], .cm-editor')
  if (types || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  event.preventDefault()
  void run(event.shiftKey ? redo : undo)
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <span class="pair">
    <Tooltip :title="canUndo ? `Take back the last change of ${nextUndo}` : 'Nothing to take back'">
      <Button size="small" type="text" aria-label="Undo" :disabled="!canUndo" @click="run(undo)"
        ><UndoOutlined
      /></Button>
    </Tooltip>
    <Tooltip :title="canRedo ? `Do the change of ${nextRedo} again` : 'Nothing to do again'">
      <Button size="small" type="text" aria-label="Redo" :disabled="!canRedo" @click="run(redo)"
        ><RedoOutlined
      /></Button>
    </Tooltip>
  </span>
</template>

<style scoped>
.pair {
  white-space: nowrap;
}
</style>
