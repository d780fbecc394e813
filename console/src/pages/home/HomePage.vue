<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { Button } from 'ant-design-vue'
import { computed } from 'vue'
import { api, unwrap } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import { count, ago } from '@/composables/format'
import { grouped } from './latest'
import RunningCards from './RunningCards.vue'
import { useGuide } from '@/composables/guide'
import { useSession } from '@/composables/session'

const { may } = useSession()
const { on, begin } = useGuide()
const { data, isLoading, error, refetch } = useQuery({
  queryKey: ['status'],
  queryFn: () => unwrap(api.GET('/manage/v1/status')),
  // While something is being worked out, its progress is looked at again.
  refetchInterval: (query) => (query.state.data?.working.length ? 2_000 : false),
})

const steps = computed(() => {
  const status = data.value
  if (!status || !may('design')) return []
  const list: { text: string; to: string }[] = []
  if (status.release === 0 && status.changedFiles === 0)
    list.push({ text: 'Make a package, or bring one in', to: '/packages' })
  if (status.errors > 0) list.push({ text: 'Mend the errors in the draft', to: '/releases' })
  if (status.changedFiles > 0 && status.errors === 0)
    list.push({ text: 'Release what waits in the draft', to: '/releases' })
  if (status.release === 0) list.push({ text: 'Define the first object', to: '/model' })
  if (status.services === 0) list.push({ text: 'Publish a service', to: '/services' })
  if (status.release === 0 && may('access')) list.push({ text: 'Invite a colleague', to: '/access' })
  if (status.release > 0) list.push({ text: 'Look at the model as a diagram', to: '/model' })
  if (status.services > 0) list.push({ text: 'Hand a contract to an integrator', to: '/services' })
  return list
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Where things stand</h1>
    </div>
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <template v-if="data">
        <section class="figures">
          <RouterLink to="/releases" class="card figure">
            <strong>{{ data.release || '–' }}</strong>
            <span>{{ data.release ? 'Live release' : 'Nothing is released yet' }}</span>
          </RouterLink>
          <RouterLink to="/releases" :class="['card figure', { warm: data.changedFiles > 0 }]">
            <strong>{{ data.changedFiles }}</strong><span>Draft changes waiting</span>
          </RouterLink>
          <RouterLink to="/releases" :class="['card figure', { bad: data.errors > 0 }]">
            <strong>{{ data.errors }}</strong><span>Errors in the draft</span>
          </RouterLink>
          <RouterLink to="/services" class="card figure">
            <strong>{{ data.services }}</strong><span>Services published</span>
          </RouterLink>
        </section>
        <p v-for="one in data.working" :key="one.formula" class="card working" role="status">
          <strong>{{ one.formula }}</strong> is being worked out for the records that were there before the
          release: {{ Math.floor(one.share * 100) }} % done. Until then those that were not reached show what
          it gave before.
        </p>
        <RunningCards v-if="data.release > 0 && (may('design') || may('audit'))" />
        <section class="columns">
          <div class="card">
            <h2>Records</h2>
            <table class="list">
              <tbody>
                <tr v-for="object in data.objects" :key="object.name">
                  <td>
                    <RouterLink :to="`/data/${object.name}`">{{ object.plural }}</RouterLink>
                  </td>
                  <td class="number">{{ count(object.inUse) }}</td>
                  <td class="quiet">{{ object.retired ? `${object.retired} retired` : '' }}</td>
                </tr>
              </tbody>
            </table>
            <p v-if="data.objects.length === 0" class="quiet">
              There are no objects yet. The steps beside begin with a package.
            </p>
          </div>
          <div class="card">
            <h2>Done lately</h2>
            <ul class="latest">
              <li v-for="(one, place) in grouped(data.latest)" :key="place">
                <RouterLink v-if="one.count === 1" :to="`/data/${one.object}/record/${one.record}`">{{
                  one.label
                }}</RouterLink>
                <RouterLink v-else :to="`/data/${one.object}`">{{ one.count }} × {{ one.label }}</RouterLink>
                {{ one.operation }} by {{ one.by }}
                <span class="quiet">· {{ one.via }} · {{ ago(one.at) }}</span>
              </li>
            </ul>
            <p v-if="data.latest.length === 0" class="quiet">Nothing has been entered yet.</p>
          </div>
          <div v-if="steps.length" class="card sand">
            <h2>Next steps</h2>
            <ol>
              <li v-for="step in steps" :key="step.text">
                <RouterLink :to="step.to">{{ step.text }}</RouterLink>
              </li>
            </ol>
            <p v-if="may('design') && !on && data.services === 0" class="guided">
              <Button size="small" type="primary" @click="begin">Guide me to a first service</Button>
            </p>
            <p class="quiet">Ctrl-K finds anything.</p>
          </div>
        </section>
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 12px;
  margin-bottom: 16px;
}
.working {
  margin: 0 0 16px;
  background: var(--sand-soft);
}
.figure {
  display: flex;
  flex-direction: column;
  color: var(--text);
}
.figure:hover {
  text-decoration: none;
  border-color: var(--action);
}
.figure strong {
  font-size: 28px;
  font-weight: 600;
  line-height: 1.2;
}
.figure span {
  color: var(--quiet);
}
.warm {
  background: var(--sand-soft);
}
.warm strong {
  color: var(--sand);
}
.bad strong {
  color: var(--bad);
}
.columns {
  display: grid;
  grid-template-columns: 1fr 1.5fr 0.9fr;
  gap: 12px;
  align-items: start;
}
.list {
  width: 100%;
  border-collapse: collapse;
}
.list td {
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
.list tr:last-child td {
  border: 0;
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
  padding-right: 10px !important;
}
.latest {
  list-style: none;
  margin: 0;
  padding: 0;
}
.latest li {
  padding: 4px 0;
}
.sand {
  background: var(--sand-soft);
}
ol {
  margin: 0;
  padding-left: 18px;
}
ol li {
  padding: 3px 0;
}
</style>
