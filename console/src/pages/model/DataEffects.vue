<script setup lang="ts">
import { Alert } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'

/** What the draft would do to the records and callers of an object, when it is released. */
const props = defineProps<{ object: string }>()
const preview = useQuery({
  queryKey: ['preview'],
  queryFn: () => unwrap(api.GET('/manage/v1/releases/preview')),
})
const isAbout = (sentence: string) => new RegExp(`\\b${props.object}\\b`).test(sentence)
const groups = computed(() => {
  const of = preview.data.value
  return [
    { kind: 'error' as const, title: 'In the way of a release', all: of?.obstacles ?? [] },
    { kind: 'warning' as const, title: 'Lost with a release', all: of?.losses ?? [] },
    { kind: 'warning' as const, title: 'Breaks for callers', all: of?.breaks ?? [] },
  ]
    .map((group) => ({ ...group, all: group.all.filter(isAbout) }))
    .filter((group) => group.all.length)
})
</script>

<template>
  <Alert
    v-for="group in groups"
    :key="group.title"
    :type="group.kind"
    show-icon
    class="effect"
    :message="group.title"
    data-test="effects"
  >
    <template #description>
      <div v-for="one in group.all" :key="one">{{ one }}</div>
    </template>
  </Alert>
</template>

<style scoped>
.effect {
  margin-bottom: 10px;
}
.effect :deep(.ant-alert-message) {
  font-size: 13px;
}
</style>
