<script setup lang="ts">
import { Alert, Button, Input, Modal, Tag, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { takeBack } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import TextDifference from '@/components/TextDifference.vue'
import { moment } from '@/composables/format'
import { useSession } from '@/composables/session'
import { isCovered, NOTHING_ACCEPTED, order } from './acceptance'
import KeptValues from './KeptValues.vue'
import { useRehearsal } from './rehearsal'
import RehearsalCard from './RehearsalCard.vue'
import ReleaseEffects from './ReleaseEffects.vue'
import TakeBackDialog from './TakeBackDialog.vue'

const queries = useQueryClient()
const { may } = useSession()
const preview = useQuery({
  queryKey: ['preview'],
  queryFn: () => unwrap(api.GET('/manage/v1/releases/preview')),
})
const releases = useQuery({ queryKey: ['releases'], queryFn: () => unwrap(api.GET('/manage/v1/releases')) })
const { times } = useRehearsal()
const note = ref('')
const accepted = ref(NOTHING_ACCEPTED)
const busy = ref(false)
const problem = ref('')
const takenBack = ref<number | null>(null)
const shownFile = ref<{ path: string; before: string; after: string } | null>(null)

const errors = computed(() => preview.data.value?.diagnostics.filter((one) => one.severity === 'ERROR') ?? [])
const ready = computed(() => !!preview.data.value && isCovered(preview.data.value, accepted.value))

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
    const made = await unwrap(api.POST('/manage/v1/releases', { body: order(note.value, accepted.value) }))
    note.value = ''
    accepted.value = NOTHING_ACCEPTED
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
      <div class="stack">
        <section class="card">
          <h2>Waiting in the draft</h2>
          <LoadState
            :loading="preview.isLoading.value"
            :error="preview.error.value"
            @retry="preview.refetch()"
          >
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
                <ReleaseEffects v-model="accepted" :preview="preview.data.value" :rehearsed="times" />
                <p v-if="!preview.data.value.changes.length && !errors.length" class="quiet">
                  Only wording differs; what is served stays the same.
                </p>
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
                  <Button
                    type="primary"
                    :disabled="!ready || !may('release')"
                    :loading="busy"
                    @click="release"
                  >
                    Release
                  </Button>
                </div>
                <Alert v-if="problem" type="error" show-icon :message="problem" />
              </template>
            </template>
          </LoadState>
        </section>
        <RehearsalCard :ready="!!preview.data.value?.files.length && errors.length === 0" />
      </div>
      <div class="stack">
        <KeptValues />
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
                <Button
                  v-if="place > 0 && may('release')"
                  size="small"
                  type="text"
                  class="back again"
                  :aria-label="`make live again: release ${one.number}`"
                  @click="takenBack = one.number"
                  >make live again</Button
                >
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
    </div>
    <TakeBackDialog v-if="takenBack !== null" :number="takenBack" @close="takenBack = null" />
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
.stack {
  display: grid;
  gap: 12px;
}
.again {
  margin-left: auto;
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
