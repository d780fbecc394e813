<script setup lang="ts">
import { DeleteOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import { ref } from 'vue'
import UsesDrawer from '@/components/UsesDrawer.vue'
import type { Subject } from '@/editor/uses'
import { removeAt, renameAt } from '@/editor/logicFile'
import TypedInput from '@/components/TypedInput.vue'

/** One entry of a map in the file: its name to change, a way to remove it, and what is said of it. */
const props = defineProps<{
  text: string
  kind: string
  name: string
  what: string
  readOnly: boolean
  /** What it is called elsewhere, when others can use it. */
  subject?: Subject
}>()
const emit = defineEmits<{ update: [text: string] }>()

const asking = ref(false)
const rename = (event: Event) =>
  emit('update', renameAt(props.text, [props.kind], props.name, (event.target as HTMLInputElement).value))
</script>

<template>
  <article class="one">
    <div class="head">
      <TypedInput
        class="name mono"
        :value="name"
        :disabled="readOnly"
        :aria-label="`Name of the ${what}`"
        @change="rename"
      />
      <slot name="head"><span class="spacer"></span></slot>
      <Button v-if="subject" type="text" size="small" @click="asking = true">Used by</Button>
      <Button
        v-if="!readOnly"
        type="text"
        size="small"
        :aria-label="`Remove ${name}`"
        @click="emit('update', removeAt(text, [kind, name]))"
        ><DeleteOutlined
      /></Button>
    </div>
    <slot></slot>
    <UsesDrawer v-if="asking && subject" :subject="subject" @left="asking = false" />
  </article>
</template>

<style scoped>
@import './logic-list.css';
.one > :slotted(label) {
  display: block;
  color: var(--quiet);
  font-size: 12.5px;
  margin: 5px 0 2px;
}
</style>
