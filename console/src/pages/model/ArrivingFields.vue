<script setup lang="ts">
import { computed } from 'vue'
import { useModel } from '@/composables/model'

/** Fields that routes have made here; they are changed where they come from. */
const props = defineProps<{ object: string; part?: string }>()
const { objects } = useModel('OUTLINE')
const arriving = computed(() => {
  const object = objects.value.find((one) => one.name === props.object)
  const fields = props.part ? object?.parts.find((one) => one.name === props.part)?.fields : object?.fields
  return (fields ?? []).flatMap((field) => (field.comesFrom ? [{ ...field, from: field.comesFrom }] : []))
})
</script>

<template>
  <p v-if="arriving.length" class="quiet arriving">
    Along routes:
    <template v-for="(one, at) in arriving" :key="one.name">
      <template v-if="at">, </template><code>{{ one.name }}</code>
      {{ one.from.follows ? 'follows' : 'from' }}
      <RouterLink :to="`/model/${one.from.object}`">{{ one.from.object }}</RouterLink> by
      <RouterLink :to="`/model/routes/${one.from.route}`">{{ one.from.route }}</RouterLink></template
    >.
  </p>
</template>

<style scoped>
.arriving {
  margin: 10px 0 0;
}
</style>
