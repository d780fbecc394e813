<script setup lang="ts">
import { Button, Checkbox, Input, Modal, Select, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keepView, removeView, viewsOf } from '@/api/figures'
import { useSession } from '@/composables/session'
import { ofView, sameList, toView, type ListState } from './list'

/** Views of a list that are kept by name: to choose, keep and take away. */
const props = defineProps<{ object: string; list: ListState }>()
const emit = defineEmits<{ chosen: [list: ListState] }>()

const { may } = useSession()
const queries = useQueryClient()
const key = computed(() => ['views', props.object])
const views = useQuery({ queryKey: key, queryFn: () => viewsOf(props.object) })
const idOf = (view: { name: string; shared: boolean }) => `${view.shared ? 'all' : 'own'} ${view.name}`
const current = computed(() => views.data.value?.find((one) => sameList(ofView(one), props.list)))
const options = computed(() => [
  { value: '', label: 'Everything' },
  ...(views.data.value ?? []).map((one) => ({
    value: idOf(one),
    label: one.shared ? `${one.name} (shared)` : one.name,
  })),
])
function choose(id: string) {
  const view = views.data.value?.find((one) => idOf(one) === id)
  emit('chosen', view ? ofView(view) : {})
}

const naming = ref(false)
const name = ref('')
const shared = ref(false)
const problem = ref('')
function begin() {
  name.value = ''
  shared.value = false
  problem.value = ''
  naming.value = true
}
async function keep() {
  try {
    await keepView(props.object, toView(name.value.trim(), shared.value, props.list))
    await queries.invalidateQueries({ queryKey: key.value })
    naming.value = false
  } catch (wrong) {
    problem.value = (wrong as Error).message
  }
}
async function remove() {
  const view = current.value!
  try {
    await removeView(props.object, view.name, view.shared)
    await queries.invalidateQueries({ queryKey: key.value })
  } catch (wrong) {
    void toast.error((wrong as Error).message)
  }
}
const isPlain = computed(() => sameList(props.list, {}))
const replaces = computed(() =>
  views.data.value?.some((one) => one.name === name.value.trim() && one.shared === shared.value),
)
</script>

<template>
  <span class="row">
    <Select
      :value="current ? idOf(current) : isPlain ? '' : undefined"
      :options="options"
      placeholder="Not kept yet"
      style="width: 170px"
      aria-label="View"
      @change="(now) => choose(String(now ?? ''))"
    />
    <Button v-if="!isPlain && !current" @click="begin">Keep view</Button>
    <Button
      v-else-if="current && !current.from && (!current.shared || may('design'))"
      type="text"
      @click="remove"
      >Take view away</Button
    >
    <Modal
      :open="naming"
      title="Keep this view"
      :ok-text="replaces ? 'Replace it' : 'Keep'"
      :ok-button-props="{ disabled: !name.trim() }"
      @ok="keep"
      @cancel="naming = false"
    >
      <label for="view-name">Name</label>
      <Input id="view-name" v-model:value="name" :maxlength="60" placeholder="Due this week" />
      <p v-if="replaces" class="quiet">There is one of this name; it is replaced.</p>
      <p v-if="may('design')">
        <Checkbox v-model:checked="shared">everybody who sees these records has it</Checkbox>
      </p>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    </Modal>
  </span>
</template>
