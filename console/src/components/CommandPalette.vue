<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { Input, Modal } from 'ant-design-vue'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, unwrap } from '@/api/client'
import { matching, type Entry } from '@/composables/palette'
import { useModel } from '@/composables/model'
import { usePages } from '@/composables/pages'
import { useSession } from '@/composables/session'

const router = useRouter()
const { may } = useSession()
const pages = usePages()
const open = ref(false)
const text = ref('')
const chosen = ref(0)
const field = ref<{ focus(): void }>()
const { objects } = useModel()
const services = useQuery({
  queryKey: ['services'],
  queryFn: () => unwrap(api.GET('/manage/v1/model/services')),
  enabled: computed(() => open.value && may('design')),
})

const entries = computed<Entry[]>(() => {
  const all: Entry[] = pages.value.map((page) => ({ kind: 'Page', label: page.title, to: page.path }))
  for (const object of objects.value) {
    all.push({ kind: 'Data', label: object.plural, to: `/data/${object.name}` })
    if (object.actions.includes('CREATE'))
      all.push({ kind: 'New', label: object.label, to: `/data/${object.name}/new` })
    if (may('design')) {
      all.push({ kind: 'Object', label: object.name, to: `/model/${object.name}` })
      for (const one of object.fields) {
        all.push({ kind: 'Field', label: `${object.name}.${one.name}`, to: `/model/${object.name}` })
      }
    }
  }
  for (const service of services.data.value ?? []) {
    all.push({ kind: 'Service', label: service.label, to: `/services/${service.name}-v${service.version}` })
  }
  return all
})
const found = computed(() => matching(entries.value, text.value))

watch(text, () => (chosen.value = 0))
watch(open, async (now) => {
  if (now) {
    text.value = ''
    await nextTick()
    field.value?.focus()
  }
})

function onKey(event: KeyboardEvent) {
  const held = (event.ctrlKey || event.metaKey) && !event.shiftKey
  if (held && event.key.toLowerCase() === 'k') {
    event.preventDefault()
    open.value = !open.value
  }
}
onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))

function move(by: number) {
  chosen.value = Math.min(Math.max(chosen.value + by, 0), found.value.length - 1)
}
function walk(event: KeyboardEvent) {
  const does: Record<string, () => void> = {
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    Enter: () => go(found.value[chosen.value]),
  }
  if (!(event.key in does)) return
  event.preventDefault()
  does[event.key]!()
}
function go(entry?: Entry) {
  if (!entry) return
  open.value = false
  void router.push(entry.to)
}
</script>

<template>
  <Modal v-model:open="open" :footer="null" :closable="false" width="560px" destroy-on-close>
    <Input
      ref="field"
      v-model:value="text"
      size="large"
      placeholder="Find objects, fields, services, pages …"
      aria-label="Find anything"
      @keydown="walk"
    />
    <ul class="found" role="listbox">
      <li
        v-for="(entry, place) in found"
        :key="place"
        role="option"
        :aria-selected="place === chosen"
        :class="{ chosen: place === chosen }"
        @click="go(entry)"
        @mousemove="chosen = place"
      >
        <span class="kind">{{ entry.kind }}</span> {{ entry.label }}
      </li>
      <li v-if="found.length === 0" class="quiet">Nothing is called like this.</li>
    </ul>
  </Modal>
</template>

<style scoped>
.found {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  max-height: 340px;
  overflow: auto;
}
.found li {
  padding: 6px 8px;
  border-radius: 6px;
  cursor: pointer;
}
.chosen {
  background: var(--action-soft);
}
.kind {
  display: inline-block;
  width: 62px;
  color: var(--quiet);
  font-size: 12px;
}
</style>
