<script setup lang="ts">
import { Button, Popconfirm, message } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, unwrap, type ServiceView } from '@/api/client'
import { count, moment } from '@/composables/format'
import { useSession } from '@/composables/session'

/** Which shapes of its answers a service still gives, to whom, and what ends the old ones. */
const props = defineProps<{ service: ServiceView }>()
const { may } = useSession()

const path = computed(() => ({ service: props.service.name, version: props.service.version }))
const revisions = useQuery({
  queryKey: computed(() => ['revisions', path.value]),
  queryFn: () =>
    unwrap(api.GET('/manage/v1/contracts/{service}/v{version}/revisions', { params: { path: path.value } })),
})
const all = computed(() => revisions.data.value ?? [])

async function end(revision: number) {
  try {
    await unwrap(
      api.DELETE('/manage/v1/contracts/{service}/v{version}/revisions/{revision}', {
        params: { path: { ...path.value, revision } },
      }),
    )
    void message.success(`Revision ${revision} is ended.`)
    await revisions.refetch()
  } catch (wrong) {
    void message.error((wrong as Error).message)
  }
}
</script>

<template>
  <section v-if="all.length > 1" class="card" data-test="revisions">
    <h2>Revisions of the contract</h2>
    <p class="quiet">
      Whoever took the contract in a revision is answered what it says, whatever was added since. End a
      revision when nobody calls it any more.
    </p>
    <table>
      <thead>
        <tr>
          <th>Revision</th>
          <th>Since</th>
          <th>Answers got</th>
          <th>Called by, in 30 days</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in all" :key="one.number">
          <td>{{ one.number }}</td>
          <td class="quiet">{{ one.at ? moment(one.at) : '' }}</td>
          <td>
            <div v-for="gain in one.gained" :key="gain">
              <code>{{ gain }}</code>
            </div>
          </td>
          <td>
            <div v-for="caller in one.callers" :key="caller.caller">
              {{ caller.caller }}
              <span class="quiet"
                >{{ count(caller.calls) }} {{ caller.calls === 1 ? 'call' : 'calls' }}, last
                {{ moment(caller.last) }}</span
              >
            </div>
          </td>
          <td>
            <span v-if="one.newest" class="quiet">newest</span>
            <span v-else-if="one.endedAt" class="quiet"
              >ended by {{ one.endedBy }}, {{ moment(one.endedAt) }}</span
            >
            <Popconfirm
              v-else-if="may('design')"
              :title="
                one.callers.length
                  ? `${one.callers.map((caller) => caller.caller).join(', ')} still call it and will be refused. End it?`
                  : 'Whoever still names it will be refused. End it?'
              "
              ok-text="End it"
              cancel-text="Keep it"
              @confirm="end(one.number)"
            >
              <Button size="small">End</Button>
            </Popconfirm>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="./card-table.css"></style>
