<script setup lang="ts">
import { DeleteOutlined, DownloadOutlined, PaperClipOutlined } from '@ant-design/icons-vue'
import { Button } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { FieldView } from '@/api/client'
import type { Plain } from '@/api/records'
import { bytes, fileIn, readFile, refusal, taken } from './keptFile'

/** A file of a record: what is there, to be downloaded, replaced or taken away. */
const props = defineProps<{
  field: FieldView
  value: Plain | undefined
  disabled?: boolean
  wrong?: boolean
  id?: string
  /** Where the stored file is downloaded; absent while nothing is stored. */
  address?: string
}>()
const emit = defineEmits<{ update: [value: Plain] }>()

const chooser = ref<HTMLInputElement>()
const refused = ref('')
const file = computed(() => fileIn(props.value))
const isStored = computed(() => !!props.address && !!file.value && file.value.content === undefined)
const isImage = computed(() => /^image\/(png|jpeg|gif|webp)$/.test(file.value?.type ?? ''))
const picture = computed(() =>
  !isImage.value || !file.value
    ? undefined
    : file.value.content !== undefined
      ? `data:${file.value.type};base64,${file.value.content}`
      : isStored.value
        ? `${props.address}?of=${file.value.sha256}`
        : undefined,
)

async function choose(files: FileList | null | undefined) {
  const [chosen] = files ?? []
  if (!chosen || props.disabled) return
  refused.value = refusal(props.field, chosen) ?? ''
  if (!refused.value) emit('update', (await readFile(chosen)) as unknown as Plain)
  if (chooser.value) chooser.value.value = ''
}
</script>

<template>
  <div
    :class="['file', { wrong, disabled }]"
    @dragover.prevent
    @drop.prevent="(event) => choose(event.dataTransfer?.files)"
  >
    <img v-if="picture" :src="picture" alt="" class="picture" />
    <div class="what">
      <template v-if="file">
        <a v-if="isStored" :href="address" :download="file.name" class="name" :title="file.name"
          ><DownloadOutlined /> {{ file.name }}</a
        >
        <span v-else class="name" :title="file.name"><PaperClipOutlined /> {{ file.name }}</span>
        <span class="quiet">{{ bytes(file.size) }}</span>
      </template>
      <span v-else class="quiet">No file</span>
    </div>
    <template v-if="!disabled">
      <Button
        :id="id"
        size="small"
        :aria-label="file ? `Replace the file of ${field.label}` : `Choose a file for ${field.label}`"
        @click="chooser?.click()"
      >
        {{ file ? 'Replace' : 'Choose' }}
      </Button>
      <Button
        v-if="file && !field.required"
        size="small"
        type="text"
        :aria-label="`Take the file of ${field.label} away`"
        @click="emit('update', null)"
      >
        <DeleteOutlined />
      </Button>
      <input
        ref="chooser"
        type="file"
        hidden
        tabindex="-1"
        :accept="field.accepts?.join(',')"
        :aria-label="field.label"
        @change="(event) => choose((event.target as HTMLInputElement).files)"
      />
    </template>
  </div>
  <div v-if="refused" class="refused" role="alert">{{ refused }}</div>
  <div v-else-if="!disabled && !file && taken(field)" class="quiet hint">{{ taken(field) }}</div>
</template>

<style scoped>
.file {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  padding: 3px 8px;
  border: 1px dashed var(--line);
  border-radius: 6px;
  background: var(--surface);
}
.file.disabled {
  border-style: solid;
  background: var(--sunken);
}
.file.wrong {
  border-color: var(--bad);
}
.picture {
  width: 40px;
  height: 40px;
  object-fit: cover;
  border-radius: 4px;
}
.what {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 8px;
  min-width: 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  max-width: 100%;
}
.refused {
  color: var(--bad);
  font-size: 12.5px;
}
.hint {
  font-size: 12px;
}
</style>
