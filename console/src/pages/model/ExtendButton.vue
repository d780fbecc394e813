<script setup lang="ts">
import { Button, Modal, Select } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keepFile } from '@/api/draft'
import { useDraft } from '@/composables/model'
import { beginningOf, pathOf, useOpenPackages } from '@/composables/packages'
import { addDependency } from '@/editor/packageFile'

/** Adds to a delivered object from its own page: makes the extension in a package of one's own. */
const props = defineProps<{ object: string; owner: string; extended: string[] }>()
const emit = defineEmits<{ made: [path: string] }>()

const queries = useQueryClient()
const { data: draft } = useDraft()
const packages = useOpenPackages(draft)
/** Packages that do not extend it yet; those that do are chosen above. */
const free = computed(() =>
  packages.value
    .map((one) => one.name)
    .filter((name) => name !== props.owner && !props.extended.some((path) => path.startsWith(`${name}/`))),
)
const chosen = ref<string>()
const folder = computed(() => chosen.value ?? free.value[0])
const asking = ref(false)
const problem = ref('')
async function make() {
  const path = pathOf(folder.value, 'extension', props.object)
  try {
    const own = draft.value?.files.find((one) => one.path === `${folder.value}/package.yaml`)
    if (own) {
      const text = addDependency(own.text, props.owner)
      if (text !== own.text) await keepFile(own.path, text, own.text)
    }
    await keepFile(path, beginningOf('extension', props.object))
    await queries.invalidateQueries()
    asking.value = false
    emit('made', path)
  } catch (wrong) {
    problem.value = (wrong as Error).message
  }
}
</script>

<template>
  <Button v-if="free.length" size="small" @click="asking = true">Add fields to it</Button>
  <Modal v-model:open="asking" :title="`Add to ${object}`" ok-text="Begin" @ok="make">
    <p>
      {{ object }} is delivered in <code>{{ owner }}</code> and stays as it is. What you add stands in a
      package of your own, and in the form beside its fields.
    </p>
    <Select
      :value="folder"
      :options="free.map((value) => ({ value }))"
      style="width: 220px"
      aria-label="Package of the extension"
      @change="(now) => (chosen = String(now))"
    />
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
  </Modal>
</template>
