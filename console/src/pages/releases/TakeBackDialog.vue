<script setup lang="ts">
import { Alert, Input, Modal, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { isCovered, NOTHING_ACCEPTED, order } from './acceptance'
import ReleaseEffects from './ReleaseEffects.vue'

/** Makes an earlier release live again, after it was told what that does. */
const props = defineProps<{ number: number }>()
const emit = defineEmits<{ close: [] }>()

const queries = useQueryClient()
const accepted = ref(NOTHING_ACCEPTED)
const note = ref('')
const busy = ref(false)
const problem = ref('')
const preview = useQuery({
  queryKey: ['take-back', props.number],
  queryFn: () =>
    unwrap(
      api.GET('/manage/v1/releases/{number}/take-back', {
        params: { path: { number: props.number } },
      }),
    ),
  gcTime: 0,
})
const errors = computed(() => preview.data.value?.diagnostics.filter((one) => one.severity === 'ERROR') ?? [])
const ready = computed(() => !!preview.data.value && isCovered(preview.data.value, accepted.value))

async function takeBack() {
  busy.value = true
  problem.value = ''
  try {
    const made = await unwrap(
      api.POST('/manage/v1/releases/{number}/take-back', {
        params: { path: { number: props.number } },
        body: order(note.value, accepted.value),
      }),
    )
    void toast.success(`Release ${made.number} is live, with what release ${props.number} had.`)
    await queries.invalidateQueries()
    emit('close')
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <Modal
    open
    :title="`Back to release ${number}`"
    ok-text="Make it live"
    :ok-button-props="{ disabled: !ready }"
    :confirm-loading="busy"
    width="640px"
    @ok="takeBack"
    @cancel="emit('close')"
  >
    <p class="quiet">
      What release {{ number }} had becomes a new release. What was renamed since gets its name back, and
      values kept aside return to their place. The draft follows, but for files that were changed in it.
    </p>
    <LoadState :loading="preview.isLoading.value" :error="preview.error.value" @retry="preview.refetch()">
      <template v-if="preview.data.value">
        <Alert
          v-if="errors.length"
          type="error"
          show-icon
          :message="`Release ${number} no longer passes the checks`"
        >
          <template #description>
            <div v-for="(one, place) in errors" :key="place">
              <code>{{ one.file }}:{{ one.line }}</code> {{ one.message }}
            </div>
          </template>
        </Alert>
        <p v-else-if="preview.data.value.files.length === 0">It is the same as the live release.</p>
        <template v-else>
          <ReleaseEffects v-model="accepted" :preview="preview.data.value" />
          <p v-if="preview.data.value.changes.length === 0" class="quiet">
            Only wording differs; what is served stays the same.
          </p>
          <Input
            v-model:value="note"
            :placeholder="`Back to release ${number}`"
            :maxlength="500"
            aria-label="Note"
            class="note"
          />
        </template>
        <Alert v-if="problem" type="error" show-icon :message="problem" />
      </template>
    </LoadState>
  </Modal>
</template>

<style scoped>
.note {
  margin: 4px 0 8px;
}
</style>
