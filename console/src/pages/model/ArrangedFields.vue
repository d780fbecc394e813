<script lang="ts">
/** What is being dragged, for all lists of the page. */
let dragged: string | undefined
</script>

<script setup lang="ts">
import { HolderOutlined } from '@ant-design/icons-vue'
import { nextTick, ref } from 'vue'

/** Fields in an order that is changed by dragging, or with Alt and the arrow keys. */
defineProps<{ fields: { name: string; label: string }[]; readOnly: boolean; empty: string; label: string }>()
const emit = defineEmits<{
  /** Something was dropped before the field at a place, or behind all. */
  dropped: [field: string, place: number]
  shifted: [field: string, by: -1 | 1]
}>()
const over = ref<number>()

function drop(place: number) {
  over.value = undefined
  if (dragged) emit('dropped', dragged, place)
  dragged = undefined
}
async function key(event: KeyboardEvent, name: string) {
  if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return
  event.preventDefault()
  emit('shifted', name, event.key === 'ArrowUp' ? -1 : 1)
  // The row may be in another list now; the eye and the hands stay with it.
  await nextTick()
  document.querySelector<HTMLElement>(`[data-field="${name}"]`)?.focus()
}
</script>

<template>
  <ul
    :aria-label="label"
    @dragover.prevent="over = fields.length"
    @dragleave="over = undefined"
    @drop.prevent="drop(fields.length)"
  >
    <li
      v-for="(field, at) in fields"
      :key="field.name"
      :class="{ over: over === at }"
      :draggable="!readOnly"
      :data-field="field.name"
      tabindex="0"
      @dragstart="dragged = field.name"
      @dragover.prevent.stop="over = at"
      @drop.prevent.stop="drop(at)"
      @keydown="(event) => key(event, field.name)"
    >
      <HolderOutlined v-if="!readOnly" class="quiet" aria-hidden="true" />
      <span class="name">{{ field.label }}</span>
      <slot :field="field.name" />
    </li>
    <li v-if="!fields.length" class="none quiet">{{ empty }}</li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
  min-height: 30px;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  padding: 3px 8px;
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--surface);
  cursor: grab;
}
li:focus-visible {
  outline: 2px solid var(--action);
}
.over {
  border-top: 2px solid var(--action);
}
.none {
  border-style: dashed;
  cursor: default;
}
.name {
  flex: 1;
  min-width: 90px;
}
</style>
