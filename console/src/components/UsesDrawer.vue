<script setup lang="ts">
import { Drawer } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import { useDraft, useModel } from '@/composables/model'
import { useSession } from '@/composables/session'
import { usesOf, type Subject } from '@/editor/uses'

/** Where the draft names something, each with a link, and the roles that do. */
const props = defineProps<{ subject: Subject }>()
const emit = defineEmits<{ left: [] }>()

const { may } = useSession()
const { data: draft } = useDraft()
const uses = computed(() => usesOf(draft.value?.files ?? [], props.subject))
const byFile = computed(() => {
  const groups = new Map<string, typeof uses.value>()
  for (const one of uses.value) groups.set(one.file, [...(groups.get(one.file) ?? []), one])
  return [...groups]
})
const roles = useQuery({
  queryKey: ['roles'],
  queryFn: () => unwrap(api.GET('/manage/v1/roles')),
  enabled: computed(() => may('access')),
})
const object = computed(() =>
  props.subject.kind === 'object'
    ? props.subject.name
    : 'object' in props.subject
      ? props.subject.object
      : undefined,
)
const naming = computed(() =>
  (roles.data.value ?? []).filter((role) =>
    role.objects.some(
      (grant) =>
        grant.object === object.value &&
        (props.subject.kind === 'object' ||
          [...(grant.hidden ?? []), ...(grant.readOnly ?? [])].includes(props.subject.name) ||
          new RegExp(`\\b${props.subject.name}\\b`).test(grant.where ?? '')),
    ),
  ),
)
const { data: model } = useModel('OUTLINE')
/** Where a field travels, by the label of the route. */
const travels = computed(() =>
  props.subject.kind === 'field'
    ? (model.value?.routes ?? []).flatMap((route) =>
        route.travellers
          .filter((one) => one.object === object.value && one.field === props.subject.name)
          .map((one) => ({ route, reaches: one.reaches })),
      )
    : [],
)
const title = computed(() =>
  'object' in props.subject ? `${props.subject.object}.${props.subject.name}` : props.subject.name,
)
</script>

<template>
  <Drawer open :title="`${title} is used by`" :width="420" @close="emit('left')">
    <p v-if="!uses.length && !naming.length && !travels.length" class="quiet">
      Nothing in the draft names it.
    </p>
    <section v-for="[file, all] in byFile" :key="file">
      <h3>
        <code>{{ file }}</code>
      </h3>
      <ul>
        <li v-for="(one, at) in all" :key="at">
          <RouterLink
            :to="{ path: `/packages/file/${one.file}`, query: { line: one.line } }"
            data-test="use"
            @click="emit('left')"
            >{{ one.what }}</RouterLink
          >
          <div class="quiet mono text">{{ one.text }}</div>
        </li>
      </ul>
    </section>
    <section v-for="one in travels" :key="one.route.name">
      <h3>
        Travels along
        <RouterLink :to="`/model/routes/${one.route.name}`" @click="emit('left')">{{
          one.route.label
        }}</RouterLink>
      </h3>
      <ul>
        <li v-for="end in one.reaches" :key="end">
          <RouterLink :to="`/model/${end.split('.')[0]}`" data-test="travels" @click="emit('left')"
            ><code>{{ end }}.{{ subject.name }}</code></RouterLink
          >
        </li>
      </ul>
    </section>
    <section v-if="naming.length">
      <h3>Roles</h3>
      <ul>
        <li v-for="role in naming" :key="role.name">
          <RouterLink to="/access">{{ role.label }}</RouterLink>
        </li>
      </ul>
    </section>
  </Drawer>
</template>

<style scoped>
h3 {
  font-size: 13px;
  margin: 10px 0 4px;
}
ul {
  margin: 0;
  padding-left: 16px;
}
.text {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
