<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { Button, Input, Popconfirm } from 'ant-design-vue'
import { computed } from 'vue'
import TypedInput from '@/components/TypedInput.vue'
import { setLabel } from '@/editor/labels'
import { partLabels, removePart, renamePart } from '@/editor/partFile'

/** The name and label of line items, above their fields. */
const props = defineProps<{
  text: string
  part: string
  released: string[]
  readOnly: boolean
  /** Languages of the package, the main one first. */
  languages: string[]
}>()
const emit = defineEmits<{ update: [text: string]; renamed: [name: string] }>()

const labels = computed(() => partLabels(props.text, props.part, props.languages[0]))
const label = (language: string, now: string) =>
  emit('update', setLabel(props.text, ['parts', props.part, 'label'], language, now, props.languages[0]))

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
      <TypedInput
        :value="part"
        :disabled="readOnly"
        class="mono name"
        aria-label="Name of the line items"
        @change="rename"
    /></label>
    <label v-for="(language, at) in languages" :key="language" class="row"
      >{{ at ? `in ${language}` : 'Label' }}
      <Input
        :value="labels[language]"
        :disabled="readOnly"
        size="small"
        style="width: 160px"
        :placeholder="at ? labels[languages[0]] : 'from the name'"
        :aria-label="at ? `Label of the line items in ${language}` : 'Label of the line items'"
        @change="(event) => label(language, (event.target as HTMLInputElement).value.trim())"
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
.name {
  width: 140px;
}
.head {
  flex-wrap: wrap;
  margin-bottom: 10px;
}
</style>
