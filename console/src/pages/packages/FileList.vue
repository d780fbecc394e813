<script setup lang="ts">
import { PlusOutlined } from '@ant-design/icons-vue'
import { Button, Tag } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { KINDS, type FileKind, type PackageEntry } from '@/composables/packages'
import NewFile from './NewFile.vue'

/** The files of a package by kind, with what is to be said of each. */
const props = defineProps<{ of: PackageEntry }>()
const emit = defineEmits<{ changed: [] }>()

const groups = computed(() =>
  [
    { kind: 'package' as FileKind, title: 'The package itself', what: '' },
    ...KINDS,
    { kind: 'other' as FileKind, title: 'Of no kind', what: 'No definition is looked for here.' },
  ].map((group) => ({
    ...group,
    files: props.of.files.filter((file) => file.kind === group.kind),
    isMakeable: KINDS.some((one) => one.kind === group.kind) && !props.of.sealed,
  })),
)
const making = ref<FileKind>()
</script>

<template>
  <div class="groups">
    <div v-for="group in groups.filter((one) => one.files.length || one.isMakeable)" :key="group.kind">
      <div class="head">
        <h3>{{ group.title }}</h3>
        <Button
          v-if="group.isMakeable"
          type="text"
          size="small"
          :aria-label="`New file: ${group.title} of ${of.name}`"
          @click="making = group.kind"
          ><PlusOutlined
        /></Button>
      </div>
      <p v-if="!group.files.length" class="quiet none">{{ group.what }}</p>
      <ul v-else>
        <li v-for="file in group.files" :key="file.path">
          <RouterLink :to="`/packages/file/${file.path}`">{{ file.name ?? file.file }}</RouterLink>
          <Tag v-if="file.errors" color="red"
            >{{ file.errors }} {{ file.errors === 1 ? 'error' : 'errors' }}</Tag
          >
          <Tag v-if="file.state !== 'released'" color="gold">{{
            file.state === 'added' ? 'new' : 'changed'
          }}</Tag>
        </li>
      </ul>
    </div>
    <NewFile
      v-if="making"
      :folder="of.name"
      :kind="making"
      :taken="of.files.map((file) => file.path)"
      @made="((making = undefined), emit('changed'))"
      @left="making = undefined"
    />
  </div>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 8px 20px;
  margin-top: 10px;
}
.head {
  display: flex;
  align-items: center;
  min-height: 26px;
  gap: 2px;
}
h3 {
  font-size: 12.5px;
  font-weight: 600;
  margin: 0;
  color: var(--quiet);
}
.none {
  margin: 0;
  font-size: 12.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 2px 0;
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
li a {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
