<script setup lang="ts">
import { LeftOutlined, RightOutlined } from '@ant-design/icons-vue'
import { Button, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { latestTraces, oneTrace } from '@/api/logic'
import LoadState from '@/components/LoadState.vue'
import StepTree from '@/components/StepTree.vue'
import { moment } from '@/composables/format'
import { standingAfter } from './soFar'

const props = defineProps<{ trace?: string }>()
const router = useRouter()
const traces = useQuery({ queryKey: ['traces'], queryFn: latestTraces, refetchInterval: 10_000 })
const search = ref('')
const shown = computed(() => {
  const wanted = search.value.toLowerCase()
  return (traces.data.value ?? []).filter((one) =>
    `${one.what} ${one.by} ${one.via} ${one.outcome}`.toLowerCase().includes(wanted),
  )
})
const chosenId = computed(() => props.trace ?? traces.data.value?.[0]?.id)
const account = useQuery({
  queryKey: computed(() => ['trace', chosenId.value]),
  queryFn: () => oneTrace(chosenId.value!),
  enabled: computed(() => !!chosenId.value),
})
const steps = computed(() => account.data.value?.steps ?? [])

const at = ref<number>()
const standing = computed(() => (at.value === undefined ? [] : standingAfter(steps.value, at.value + 1)))
watch(chosenId, () => (at.value = undefined))
function go(by: -1 | 1) {
  const now = at.value ?? (by > 0 ? -1 : steps.value.length)
  at.value = Math.min(steps.value.length - 1, Math.max(0, now + by))
}
function keys(event: KeyboardEvent) {
  if (event.key === 'ArrowRight' || event.key === 'ArrowDown') go(1)
  else if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') go(-1)
  else return
  event.preventDefault()
}
</script>

<template>
  <LoadState :loading="traces.isLoading.value" :error="traces.error.value" @retry="traces.refetch()">
    <div v-if="!traces.data.value?.length" class="empty">
      No request was refused yet. To keep the account of one that goes well, send it with the header
      <code>Sandpiper-Trace: on</code>.
    </div>
    <div v-else class="sides">
      <section class="card list">
        <input v-model="search" class="search" placeholder="Search …" aria-label="Search requests" />
        <button
          v-for="one in shown"
          :key="one.id"
          :class="['one', { here: one.id === chosenId }]"
          @click="router.replace(`/activity/${one.id}`)"
        >
          <span class="what">{{ one.what }}</span>
          <Tag :color="one.outcome === 'refused' ? 'red' : 'cyan'">{{ one.outcome }}</Tag>
          <span class="quiet">{{ moment(one.at) }} · {{ one.by }} · {{ one.via }}</span>
        </button>
      </section>
      <section class="card" tabindex="0" aria-label="Steps of the request" @keydown="keys">
        <LoadState :loading="account.isLoading.value" :error="account.error.value" @retry="account.refetch()">
          <template v-if="account.data.value">
            <div class="head">
              <h2>{{ account.data.value.what }}</h2>
              <span class="spacer"></span>
              <span class="quiet"
                >{{ at === undefined ? steps.length : `${at + 1} of ${steps.length}` }} steps</span
              >
              <Button size="small" aria-label="Step back" @click="go(-1)"><LeftOutlined /></Button>
              <Button size="small" aria-label="Step on" @click="go(1)"><RightOutlined /></Button>
            </div>
            <div v-if="at !== undefined" class="standing" data-test="standing">
              <span v-if="!standing.length" class="quiet">Nothing has changed by this step.</span>
              <div v-for="one in standing" :key="one.of">
                <strong>{{ one.of }}</strong>
                <span v-for="value in one.values" :key="value.name" class="value">
                  <span class="quiet">{{ value.name }}</span> {{ value.value }}
                </span>
              </div>
            </div>
            <StepTree :steps="steps" :chosen="at" @choose="(now) => (at = at === now ? undefined : now)" />
          </template>
        </LoadState>
      </section>
    </div>
  </LoadState>
</template>

<style scoped>
.sides {
  height: 100%;
  min-height: 0;
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 12px;
}
.sides > section {
  overflow: auto;
  min-height: 0;
}
.list {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 8px;
}
.search {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 5px 10px;
  background: var(--surface);
  color: var(--text);
  margin-bottom: 6px;
}
.one {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 6px;
  text-align: left;
  border: 0;
  background: none;
  color: var(--text);
  font: inherit;
  padding: 6px 8px;
  border-radius: 6px;
  cursor: pointer;
}
.one .quiet {
  grid-column: span 2;
  font-size: 12px;
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.one:hover {
  background: var(--sunken);
}
.here {
  background: var(--action-soft);
}
.head {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
h2 {
  margin: 0;
}
.standing {
  background: var(--sunken);
  border-radius: 6px;
  padding: 8px 12px;
  margin-bottom: 8px;
  font-size: 12.5px;
  max-height: 30vh;
  overflow: auto;
}
.value {
  margin-left: 12px;
}
.spacer {
  flex: 1;
}
</style>
