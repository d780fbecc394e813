<script setup lang="ts">
import { DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { AutoComplete, Button, Select } from 'ant-design-vue'
import { computed } from 'vue'
import DraftPageHead from '@/components/DraftPageHead.vue'
import FileFindings from '@/components/FileFindings.vue'
import LabelAndPurpose from '@/components/LabelAndPurpose.vue'
import LoadState from '@/components/LoadState.vue'
import { useDraftFile } from '@/composables/draftFile'
import { useDraft, useModel } from '@/composables/model'
import {
  addStep,
  readRoute,
  removeStep,
  setOnRoute,
  setServices,
  setStep,
  targets,
  waysTo,
  type RouteStep,
} from '@/editor/routeFile'
import { readService } from '@/editor/serviceFile'

/** A route: its steps to put together, and what travels along it. */
const props = defineProps<{ route: string }>()
const { data: draft, isLoading, error, refetch } = useDraft()
const { data: model, objects } = useModel('OUTLINE')
const file = computed(() => draft.value?.files.find((one) => readRoute(one.text)?.name === props.route))
const edited = useDraftFile(file)
const { text, mine, isSealed, change } = edited

const said = computed(() => readRoute(text.value))
const compiled = computed(() => model.value?.routes.find((one) => one.name === props.route))
const services = computed(() => [
  ...new Set((draft.value?.files ?? []).flatMap((one) => readService(one.text)?.name ?? [])),
])
const names = computed(() => objects.value.map((one) => ({ value: one.name })))
const ends = computed(() => targets(objects.value).map((value) => ({ value })))
const ways = (step: RouteStep) => waysTo(objects.value, step.to, step.from)

/** Another end of a step has another way, the shortest there is. */
function set(at: number, more: Partial<RouteStep>) {
  const step = { ...said.value!.steps[at], ...more }
  if (!('through' in more) && !ways(step).includes(step.through ?? '')) step.through = ways(step)[0]
  change(setStep(text.value, at, step))
}

/** A new step goes on from where the last one led. */
function add() {
  const last = said.value?.steps.at(-1)?.to.split('.')[0]
  change(addStep(text.value, { from: last ?? objects.value[0]?.name ?? '', to: '' }))
}
</script>

<template>
  <div class="page">
    <LoadState :loading="isLoading" :error="error" @retry="refetch">
      <div v-if="!file" class="empty">
        There is no route {{ route }}. <RouterLink to="/model">To the model</RouterLink>
      </div>
      <template v-else>
        <DraftPageHead
          :parent="{ title: 'Model', path: '/model' }"
          :title="said?.label ?? route"
          :file="edited"
        >
          <RouterLink :to="{ path: '/model', query: { route } }">In the diagram</RouterLink>
        </DraftPageHead>
        <section class="card">
          <p v-if="!said" class="quiet">The file is not YAML just now; mend it there.</p>
          <template v-else>
            <LabelAndPurpose
              :label="said.label"
              :describe="said.describe"
              question="What it is for"
              :read-only="isSealed"
              @set="(key, value) => change(setOnRoute(text, key, value))"
            />
            <h2>Steps</h2>
            <p class="quiet">
              Records of the second are made from those of the first, or its line items get their values; the
              references lead back.
            </p>
            <table v-if="said.steps.length" class="steps">
              <thead>
                <tr>
                  <th>From</th>
                  <th>To</th>
                  <th>Through</th>
                  <th><span class="unseen">Tools</span></th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="(step, at) in said.steps" :key="at" data-test="step">
                  <td>
                    <Select
                      :value="step.from || undefined"
                      :options="names"
                      :disabled="isSealed"
                      show-search
                      size="small"
                      placeholder="object"
                      style="width: 100%"
                      :aria-label="`Step ${at + 1} from`"
                      @change="(now) => set(at, { from: String(now) })"
                    />
                  </td>
                  <td>
                    <Select
                      :value="step.to || undefined"
                      :options="ends"
                      :disabled="isSealed"
                      show-search
                      size="small"
                      placeholder="object or line items"
                      style="width: 100%"
                      :aria-label="`Step ${at + 1} to`"
                      @change="(now) => set(at, { to: String(now) })"
                    />
                  </td>
                  <td>
                    <AutoComplete
                      :value="step.through"
                      :options="ways(step).map((value) => ({ value }))"
                      :disabled="isSealed"
                      size="small"
                      :placeholder="step.to.startsWith(step.from + '.') ? 'of its own record' : 'a reference'"
                      style="width: 100%"
                      class="mono"
                      :aria-label="`Step ${at + 1} through`"
                      @change="(now) => set(at, { through: String(now ?? '') })"
                    />
                  </td>
                  <td>
                    <Button
                      v-if="!isSealed"
                      type="text"
                      size="small"
                      :aria-label="`Remove step ${at + 1}`"
                      @click="change(removeStep(text, at))"
                      ><DeleteOutlined
                    /></Button>
                  </td>
                </tr>
              </tbody>
            </table>
            <Button v-if="!isSealed" size="small" @click="add"><PlusOutlined /> Add step</Button>
            <h2>Services that show what travels</h2>
            <Select
              mode="multiple"
              :value="said.services"
              :options="services.map((value) => ({ value }))"
              :disabled="isSealed"
              placeholder="None"
              style="width: 100%; max-width: 560px"
              aria-label="Services"
              @change="(now) => change(setServices(text, now as string[]))"
            />
            <h2>What travels</h2>
            <p v-if="!compiled?.travellers.length" class="quiet">
              Nothing yet. Open the details of a field on the page of its object, and send it along this
              route.
            </p>
            <ul v-else class="travellers">
              <li
                v-for="one in compiled.travellers"
                :key="`${one.object}.${one.field}`"
                data-test="traveller"
              >
                <RouterLink :to="`/model/${one.object}`"
                  ><code>{{ one.object }}.{{ one.field }}</code></RouterLink
                >
                {{ one.follows ? 'is followed on' : 'is taken over by' }}
                <code>{{ one.reaches.join(', ') }}</code>
              </li>
            </ul>
          </template>
          <FileFindings class="findings" :findings="mine" />
        </section>
      </template>
    </LoadState>
  </div>
</template>

<style scoped>
.steps {
  width: 100%;
  max-width: 860px;
  border-collapse: collapse;
  margin-bottom: 8px;
}
.steps th {
  text-align: left;
  font-weight: 500;
  color: var(--quiet);
  font-size: 12.5px;
}
.steps td {
  padding: 3px 8px 3px 0;
  width: 32%;
}
.steps td:last-child {
  width: 40px;
}
h2 {
  font-size: 14px;
  margin: 18px 0 6px;
}
.travellers {
  margin: 0;
  padding-left: 18px;
}
.findings {
  margin: 16px -16px -16px;
}
</style>
