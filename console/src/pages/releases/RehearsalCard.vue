<script setup lang="ts">
import { Alert, Button, Spin } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap } from '@/api/client'
import { count, moment } from '@/composables/format'
import { useSession } from '@/composables/session'
import { lasting, useRehearsal } from './rehearsal'
import ReplayReport from './ReplayReport.vue'

/** The draft on a copy of the live data: what it does there, and how long the release will take. */
defineProps<{ ready: boolean }>()

const STEPS: Record<string, string> = {
  copying: 'Copying the data',
  releasing: 'Releasing on the copy',
  formulas: 'Working out formulas',
  examples: 'Playing the examples',
  serving: 'Serving the copy',
  replaying: 'Playing recorded calls',
}

const queries = useQueryClient()
const { may } = useSession()
const problem = ref('')
const { last } = useRehearsal()
const served = computed(() => last.value?.served)
const origin = location.origin
const running = computed(() => !!last.value && !last.value.over)

async function ask(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = (error as Error).message
  }
  await queries.invalidateQueries({ queryKey: ['rehearsal'] })
}
const begin = () => ask(() => unwrap(api.POST('/manage/v1/rehearsal')))
const end = () => ask(() => unwrap(api.DELETE('/manage/v1/rehearsal')))
</script>

<template>
  <section class="card" aria-label="Rehearsal" data-test="rehearsal">
    <div class="row">
      <h2>Rehearsal</h2>
      <span v-if="last" class="quiet">{{ moment(last.begun) }} · {{ last.by }}</span>
      <span class="spacer"></span>
      <Button v-if="(running || served) && may('release')" @click="end">End it</Button>
      <Button v-if="!running" :disabled="!ready || !may('release')" @click="begin">
        {{ served ? 'Rehearse again' : 'Rehearse' }}
      </Button>
    </div>
    <p v-if="!last" class="quiet">
      Releases the draft on a copy of the live data, tells what it does and how long it takes, and serves the
      copy for a day to be tried by people and clients. The service goes on; nothing is sent from the copy.
    </p>
    <p v-else-if="running"><Spin size="small" /> {{ STEPS[last.stage] }} …</p>
    <template v-else-if="last.stage === 'done'">
      <p v-if="served" data-test="served">
        <a :href="`${served.place}/`">Open the rehearsal</a>
        <span class="quiet">
          Clients find it at <code>{{ origin }}{{ served.place }}</code
          >. It is thrown away {{ moment(served.until) }}, or when it is ended.
        </span>
      </p>
      <p>
        On a copy of release {{ last.release }} ({{ count(Math.round(last.bytes / 1e6)) }} MB) the release
        took <strong>{{ lasting(last.releaseMillis) }}</strong>, in which nobody can write.
        <template v-if="last.formulas.length">
          Afterwards {{ last.formulas.join(', ') }} {{ last.formulas.length === 1 ? 'was' : 'were' }} worked
          out for all records in <strong>{{ lasting(last.formulaMillis) }}</strong>, while requests are
          served.
        </template>
      </p>
      <Alert v-if="last.failing.length" type="error" show-icon message="Examples that do not hold">
        <template #description>
          <ul>
            <li v-for="(one, place) in last.failing" :key="place">
              {{ one.requirement }}, {{ one.label }}: {{ one.problems.join(' ') }}
            </li>
          </ul>
        </template>
      </Alert>
      <Alert
        v-if="last.differing.length"
        type="warning"
        show-icon
        message="Examples that hold, but no longer or not yet on the records there are"
      >
        <template #description>
          <ul>
            <li v-for="(one, place) in last.differing" :key="place">
              {{ one.requirement }}, {{ one.label }}: {{ one.problems.join(' ') }}
            </li>
          </ul>
        </template>
      </Alert>
      <p v-if="!last.failing.length && !last.differing.length" class="quiet">All examples hold.</p>
      <ReplayReport v-if="last.replay" :of="last.replay" />
    </template>
    <Alert
      v-else
      type="error"
      show-icon
      :message="last.stage === 'refused' ? 'It would be refused' : 'It did not come to its end'"
    >
      <template #description>
        <div>{{ last.message }}</div>
        <div v-for="one in last.preview?.obstacles ?? []" :key="one">{{ one }}</div>
      </template>
    </Alert>
    <Alert v-if="problem" type="error" show-icon :message="problem" />
  </section>
</template>

<style scoped>
h2 {
  margin: 0;
}
p {
  display: block;
  margin: 10px 0;
}
p > a {
  margin-right: 10px;
  font-weight: 600;
}
.row {
  gap: 8px;
}
.ant-alert {
  margin: 10px 0;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
