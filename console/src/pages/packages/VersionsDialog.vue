<script setup lang="ts">
import { Button, Modal, message as toast } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { keepFile, versionsOf } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import TextDifference from '@/components/TextDifference.vue'
import { moment } from '@/composables/format'
import { useDraft } from '@/composables/model'

/** What files of the draft were before, to look at and to come back to. */
const props = defineProps<{ path?: string }>()
const emit = defineEmits<{ done: [path: string]; left: [] }>()

const { data: draft } = useDraft()
const versions = useQuery({
  queryKey: computed(() => ['versions', props.path]),
  queryFn: () => versionsOf(props.path),
})
const chosen = ref(0)
const one = computed(() => versions.data.value?.[chosen.value])
const now = computed(() => draft.value?.files.find((file) => file.path === one.value?.path)?.text ?? '')

async function comeBack() {
  try {
    await keepFile(one.value!.path, one.value!.text)
    void toast.success(`${one.value!.path} is as ${one.value!.by} left it.`)
    emit('done', one.value!.path)
  } catch (error) {
    void toast.error((error as Error).message)
  }
}
</script>

<template>
  <Modal
    open
    :title="path ? `Versions of ${path}` : 'Versions of the draft’s files'"
    width="960px"
    :footer="null"
    @cancel="emit('left')"
  >
    <LoadState :loading="versions.isLoading.value" :error="versions.error.value" @retry="versions.refetch()">
      <p v-if="!versions.data.value?.length" class="quiet">
        None yet. What a file was is kept when somebody else changes it, when one goes on after a pause, and
        when it is taken out.
      </p>
      <div v-else class="sides">
        <ul>
          <li v-for="(version, at) in versions.data.value" :key="at">
            <button :class="{ here: at === chosen }" :aria-pressed="at === chosen" @click="chosen = at">
              <code v-if="!path">{{ version.path }}</code>
              <span>{{ moment(version.at) }} · {{ version.by }}</span>
            </button>
          </li>
        </ul>
        <div v-if="one">
          <div class="row head">
            <span class="quiet">From now to what it was then</span>
            <span class="spacer"></span>
            <Button size="small" type="primary" :disabled="one.text === now" @click="comeBack"
              >Come back to this one</Button
            >
          </div>
          <TextDifference :before="now" :after="one.text" />
        </div>
      </div>
    </LoadState>
  </Modal>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 260px minmax(0, 1fr);
  gap: 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 60vh;
  overflow: auto;
}
li button {
  display: grid;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  color: var(--text);
  padding: 6px 8px;
  border-radius: 6px;
  cursor: pointer;
  overflow-wrap: anywhere;
}
li button:hover,
.here {
  background: var(--action-soft);
}
.head {
  margin-bottom: 8px;
}
</style>
