<script setup lang="ts">
import { Checkbox, Select } from 'ant-design-vue'
import { computed } from 'vue'
import { useModel } from '@/composables/model'
import type { Travel } from '@/editor/objectFile'

/** Along which routes a field travels, of those that go on from its object. */
const props = defineProps<{ object: string; field: string; travels: Travel[]; readOnly: boolean }>()
const emit = defineEmits<{ set: [travels: Travel[]] }>()
const { data: model } = useModel('OUTLINE')

const routes = computed(() =>
  (model.value?.routes ?? []).filter(
    (route) =>
      route.steps.some((step) => step.from === props.object) ||
      props.travels.some((one) => one.route === route.name),
  ),
)
const of = (route: string) => props.travels.find((one) => one.route === route)
const others = (route: string) => props.travels.filter((one) => one.route !== route)
const send = (route: string, on: boolean) =>
  emit('set', on ? [...props.travels, { route, follows: false }] : others(route))
const put = (route: string, more: Partial<Travel>) =>
  emit(
    'set',
    props.travels.map((one) => (one.route === route ? { ...one, ...more } : one)),
  )

/** What a route leads to from the object on. */
function ends(name: string): string[] {
  const steps = model.value?.routes.find((one) => one.name === name)?.steps ?? []
  const reached = new Set([props.object])
  const found: string[] = []
  for (let more = true; more;) {
    more = false
    for (const step of steps) {
      const end = step.part ? `${step.to}.${step.part}` : step.to
      if (!reached.has(step.from) || found.includes(end)) continue
      found.push(end)
      if (!step.part) reached.add(step.to)
      more = true
    }
  }
  return found
}
</script>

<template>
  <div v-if="routes.length" class="travels">
    <div v-for="route in routes" :key="route.name" class="route">
      <Checkbox :checked="!!of(route.name)" :disabled="readOnly" @change="send(route.name, !of(route.name))"
        >travels along <em>{{ route.label }}</em></Checkbox
      >
      <template v-if="of(route.name)">
        <Select
          mode="multiple"
          :value="of(route.name)!.to ?? []"
          :options="ends(route.name).map((value) => ({ value }))"
          :disabled="readOnly"
          size="small"
          placeholder="to all of it"
          style="min-width: 200px; max-width: 420px"
          :aria-label="`Where ${field} travels along ${route.name}`"
          @change="(now) => put(route.name, { to: (now as string[]).length ? (now as string[]) : undefined })"
        />
        <Checkbox
          :checked="of(route.name)!.follows"
          :disabled="readOnly"
          @change="put(route.name, { follows: !of(route.name)!.follows })"
          >values there change with it</Checkbox
        >
        <RouterLink :to="`/model/routes/${route.name}`" class="quiet">Route</RouterLink>
      </template>
    </div>
  </div>
</template>

<style scoped>
.travels {
  grid-column: 1 / -1;
}
.route {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
</style>
