<script setup lang="ts">
import { Tag } from 'ant-design-vue'
import KeptState from '@/components/KeptState.vue'
import ElsewhereNote from '@/components/ElsewhereNote.vue'
import UndoRedo from '@/components/UndoRedo.vue'
import { STATE_WORDS, type useDraftFile } from '@/composables/draftFile'

/** The head of a page on which a file of the draft is edited: where it belongs, its file, how it is kept. */
defineProps<{
  parent: { title: string; path: string }
  title: string
  file: ReturnType<typeof useDraftFile>
}>()
</script>

<template>
  <div class="page-head">
    <RouterLink :to="parent.path">{{ parent.title }}</RouterLink> <span class="quiet">/</span>
    <h1>{{ title }}</h1>
    <RouterLink :to="`/packages/file/${file.path.value}`" class="quiet"
      ><code>{{ file.path.value }}</code></RouterLink
    >
    <Tag v-if="file.isSealed.value" color="gold">delivered, not edited here</Tag>
    <div class="spacer"></div>
    <UndoRedo />
    <span class="quiet" data-test="state">{{ STATE_WORDS[file.state.value] }}</span>
    <slot></slot>
    <RouterLink to="/releases">Release</RouterLink>
  </div>
  <KeptState
    v-if="file.problem.value"
    class="note"
    :state="file.state.value"
    :problem="file.problem.value"
    @mine="file.keepMine"
    @theirs="file.takeTheirs"
  />
  <ElsewhereNote :errors="file.elsewhere.value" class="note" />
</template>

<style scoped>
.note {
  margin-bottom: 10px;
}
</style>
