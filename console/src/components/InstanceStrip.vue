<script setup lang="ts">
import { computed } from 'vue'
import { useSession } from '@/composables/session'

/** The name and colour of the instance over every page, so that nobody takes one for another. */
const { me } = useSession()
const instance = computed(() => me.value?.instance)
/** Black on light colours, white on dark ones, by how bright they look (ITU-R BT.601). */
const ink = computed(() => {
  const [red, green, blue] = [1, 3, 5].map((at) =>
    parseInt(instance.value?.colour.slice(at, at + 2) ?? '', 16),
  )
  return 0.299 * red + 0.587 * green + 0.114 * blue > 150 ? '#000' : '#fff'
})
const style = computed(() =>
  instance.value?.colour ? { background: instance.value.colour, color: ink.value } : {},
)
</script>

<template>
  <div v-if="instance?.name || instance?.colour" class="instance" :style="style" data-test="instance">
    <strong>{{ instance.name }}</strong>
    <span v-if="instance.packagesOnly">takes packages only</span>
  </div>
</template>

<style scoped>
.instance {
  display: flex;
  gap: 10px;
  min-height: 6px;
  padding: 2px 24px;
  font-size: 12.5px;
  background: var(--sand-soft);
}
</style>
