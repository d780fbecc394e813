<script setup lang="ts">
import { Alert, Button, Checkbox, Input, Modal, Tag, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { takeBack } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import TextDifference from '@/components/TextDifference.vue'
import { moment } from '@/composables/format'
import { useSession } from '@/composables/session'

const queries = useQueryClient()
const { may } = useSession()
const preview = useQuery({
  queryKey: ['preview'],
  queryFn: () => unwrap(api.GET('/manage/v1/releases/preview')),
})
const releases = useQuery({ queryKey: ['releases'], queryFn: () => unwrap(api.GET('/manage/v1/releases')) })
const note = ref('')
const accept = ref(false)
const acceptBreaks = ref(false)
const busy = ref(false)
const problem = ref('')
const shownFile = ref<{ path: string; before: string; after: string } | null>(null)

const errors = computed(() => preview.data.value?.diagnostics.filter((one) => one.severity === 'ERROR') ?? [])
const ready = computed(() => {
  const now = preview.data.value
  return (
    !!now &&
    now.files.length > 0 &&
    errors.value.length === 0 &&
    now.obstacles.length === 0 &&
    (now.losses.length === 0 || accept.value) &&
    (now.breaks.length === 0 || acceptBreaks.value)
  )
})

/** Makes a file what it is in the live release; what it was stays among the versions. */
async function back(path: string) {
  try {
    await takeBack([path])
    await queries.invalidateQueries()
  } catch (error) {
    problem.value = (error as Error).message
  }
}

async function release() {
  busy.value = true
  problem.value = ''
  try {
    const made = await unwrap(
      api.POST('/manage/v1/releases', {
        body: { note: note.value, acceptLosses: accept.value, acceptBreaks: acceptBreaks.value },
      }),
    )
    note.value = ''
    accept.value = false
    acceptBreaks.value = false
    void toast.success(`Release ${made.number} is live.`)
    await queries.invalidateQueries()
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head"><h1>Releases</h1></div>
    <div class="columns">
      <section class="card">
        <h2>Waiting in the draft</h2>
        <LoadState :loading="preview.isLoading.value" :error="preview.error.value" @retry="preview.refetch()">
          <template v-if="preview.data.value">
            <p v-if="preview.data.value.files.length === 0" class="quiet">
              Nothing: the draft is the same as the live release.
            </p>
            <template v-else>
              <Alert
                v-if="errors.length"
                type="error"
                show-icon
                :message="`${errors.length} errors keep the draft from being released`"
              >
                <template #description>
                  <div v-for="(one, place) in errors" :key="place">
                    <RouterLink :to="{ path: `/packages/file/${one.file}`, query: { line: one.line } }"
                      ><code>{{ one.file }}:{{ one.line }}</code></RouterLink
                    >
                    {{ one.message }}
                  </div>
                </template>
              </Alert>
              <ul v-if="preview.data.value.changes.length" class="changes" data-test="changes">
                <li v-for="one in preview.data.value.changes" :key="one">{{ one }}</li>
              </ul>
              <p v-else-if="!errors.length" class="quiet">
                Only wording differs; what is served stays the same.
              </p>
              <Alert
                v-if="preview.data.value.obstacles.length"
                type="error"
                show-icon
                message="The data stands in the way"
              >
                <template #description>
                  <div v-for="one in preview.data.value.obstacles" :key="one">{{ one }}</div>
                </template>
              </Alert>
              <Alert
                v-if="preview.data.value.losses.length"
                type="warning"
                show-icon
                message="Data would be taken away"
              >
                <template #description>
                  <div v-for="one in preview.data.value.losses" :key="one">{{ one }}</div>
                  <Checkbox v-model:checked="accept">I accept that</Checkbox>
                </template>
              </Alert>
              <Alert
                v-if="preview.data.value.breaks.length"
                type="warning"
                show-icon
                message="Published contracts would break"
                data-test="breaks"
              >
                <template #description>
                  <ul class="changes">
                    <li v-for="one in preview.data.value.breaks" :key="one">{{ one }}</li>
                  </ul>
                  <p class="quiet">A new version of the service beside this one breaks nobody.</p>
                  <Checkbox v-model:checked="acceptBreaks">Break them all the same</Checkbox>
                </template>
              </Alert>
              <h2 class="files">Files</h2>
              <div v-for="file in preview.data.value.files" :key="file.path">
                <button class="mono link" @click="shownFile = file">{{ file.path }}</button>
                <Tag v-if="!file.before" class="tag">added</Tag>
                <Tag v-else-if="!file.after" class="tag">removed</Tag>
                <Button
                  size="small"
                  type="text"
                  class="back"
                  :aria-label="`take back ${file.path}`"
                  @click="back(file.path)"
                  >take back</Button
                >
              </div>
              <div class="row act">
                <Input
                  v-model:value="note"
                  placeholder="What is this release for?"
                  :maxlength="500"
                  aria-label="Note"
                />
                <Button type="primary" :disabled="!ready || !may('release')" :loading="busy" @click="release">
                  Release
                </Button>
              </div>
              <Alert v-if="problem" type="error" show-icon :message="problem" />
            </template>
          </template>
        </LoadState>
      </section>
      <section class="card">
        <h2>Released so far</h2>
        <LoadState
          :loading="releases.isLoading.value"
          :error="releases.error.value"
          @retry="releases.refetch()"
        >
          <p v-if="releases.data.value?.length === 0" class="quiet">Nothing yet.</p>
          <article v-for="(one, place) in releases.data.value" :key="one.number">
            <div class="row">
              <strong>Release {{ one.number }}</strong>
              <Tag v-if="place === 0" color="cyan">live</Tag>
              <span class="quiet">{{ moment(one.at) }} · {{ one.by }}</span>
            </div>
            <div v-if="one.note">{{ one.note }}</div>
            <details :open="place === 0 && one.changes.length < 8">
              <summary class="quiet">{{ one.changes.length }} changes</summary>
              <ul class="changes">
                <li v-for="change in one.changes" :key="change">{{ change }}</li>
              </ul>
            </details>
          </article>
        </LoadState>
      </section>
    </div>
    <Modal
      :open="!!shownFile"
      :title="shownFile?.path"
      width="860px"
      :footer="null"
      @cancel="shownFile = null"
    >
      <TextDifference v-if="shownFile" :before="shownFile.before" :after="shownFile.after" />
    </Modal>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1.2fr 1fr;
  gap: 12px;
  align-items: start;
}
.changes {
  margin: 0 0 12px;
  padding-left: 18px;
}
.changes li {
  padding: 2px 0;
}
.files {
  margin-top: 14px;
}
.tag {
  margin-left: 6px;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  color: var(--action);
  cursor: pointer;
}
.back {
  color: var(--quiet);
}
.act {
  margin: 16px 0 8px;
}
article {
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
article:last-child {
  border: 0;
}
summary {
  cursor: pointer;
}
</style>
