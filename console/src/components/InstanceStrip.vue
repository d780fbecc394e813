<script setup lang="ts">
import { computed } from 'vue'
import { count, moment } from '@/composables/format'
import { useSession } from '@/composables/session'

/** The name and colour of the instance over every page, so that nobody takes one for another. */
const { me } = useSession()
const instance = computed(() => me.value?.instance)
const rehearsal = computed(() => instance.value?.rehearsal)
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
    <span v-if="instance.packagesOnly && !rehearsal">takes packages only</span>
  </div>
  <div v-if="rehearsal" class="instance rehearsal" data-test="rehearsing">
    <strong>Rehearsal</strong>
    <span>
      made {{ moment(rehearsal.made) }}, {{ count(rehearsal.changes) }}
      {{ rehearsal.changes === 1 ? 'change' : 'changes' }} of {{ rehearsal.by }}. Nothing is sent: webhooks
      and schedules are held.
    </span>
    <span class="spacer"></span>
    <a href="/releases">Back to the service</a>
  </div>
</template>

<style scoped>
.instance {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  min-height: 6px;
  padding: 2px 24px;
  font-size: 12.5px;
  background: var(--sand-soft);
}
.rehearsal {
  padding: 6px 24px;
  color: #1d2b33;
  background: repeating-linear-gradient(-45deg, #f6d488 0 14px, #f2c96a 14px 28px);
}
.rehearsal a {
  color: #0b3a53;
  font-weight: 600;
}
</style>
