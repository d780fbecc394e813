<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { Button, Input, Popconfirm } from 'ant-design-vue'
import { partLabel, removePart, renamePart } from '@/editor/objectFile'
import { setAt } from '@/editor/logicFile'

/** The name and label of line items, above their fields. */
const props = defineProps<{ text: string; part: string; released: string[]; readOnly: boolean }>()
const emit = defineEmits<{ update: [text: string]; renamed: [name: string] }>()

function rename(event: Event) {
  const to = (event.target as HTMLInputElement).value.trim()
  if (!/^[a-z][A-Za-z0-9]{0,59}$/.test(to)) return
  const text = renamePart(props.text, props.part, to, props.released)
  if (text === props.text) return
  emit('update', text)
  emit('renamed', to)
}
</script>

<template>
  <div class="row head">
    <label class="row"
      >Name
      <Input
        :value="part"
        :disabled="readOnly"
        size="small"
        class="mono"
        style="width: 140px"
        aria-label="Name of the line items"
        @change="rename"
    /></label>
    <label class="row"
      >Label
      <Input
        :value="partLabel(text, part)"
        :disabled="readOnly"
        size="small"
        style="width: 180px"
        placeholder="from the name"
        aria-label="Label of the line items"
        @change="
          (event) =>
            emit(
              'update',
              setAt(text, ['parts', part, 'label'], (event.target as HTMLInputElement).value.trim()),
            )
        "
    /></label>
    <span class="spacer"></span>
    <Popconfirm
      v-if="!readOnly"
      :title="
        released.includes(part)
          ? 'Remove these line items? What is in them goes with the next release, which asks again.'
          : 'Remove these line items with their fields?'
      "
      @confirm="emit('update', removePart(text, part))"
    >
      <Button size="small" type="text"><DeleteOutlined /> Remove these line items</Button>
    </Popconfirm>
  </div>
</template>

<style scoped>
.head {
  flex-wrap: wrap;
  margin-bottom: 10px;
}
</style>
