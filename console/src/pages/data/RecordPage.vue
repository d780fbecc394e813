<script setup lang="ts">
import { Alert, Button, Modal, Tag, Tooltip, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import { CODES } from '@/api/codes'
import { ApiProblem } from '@/api/http'
import {
  addressOf,
  changeRecord,
  createRecord,
  removeRecord,
  restoreRecord,
  showRecord,
  type RecordView,
  type Values,
} from '@/api/records'
import { takeTransition, transitionsOf, type TransitionState } from '@/api/logic'
import type { ObjectFunctionView } from '@/api/client'
import CallFunction from '@/components/CallFunction.vue'
import FieldInput from '@/components/FieldInput.vue'
import { fileAddress } from '@/components/keptFile'
import LoadState from '@/components/LoadState.vue'
import { useModel } from '@/composables/model'
import { isWide, sectionsOf, sideLists } from './formLayout'
import ItemTable from './ItemTable.vue'
import { useRecordForm } from './recordForm'
import RecordHistory from './RecordHistory.vue'
import ReferenceDetails from './ReferenceDetails.vue'
import SideList from './SideList.vue'

const props = defineProps<{ object: string }>()
const router = useRouter()
const queries = useQueryClient()
const { objects, isLoading: modelLoading, error: modelError } = useModel()
const object = computed(() => objects.value.find((one) => one.name === props.object))
const routeKey = computed(() => router.currentRoute.value.params.key as string | undefined)
const isNew = computed(() => routeKey.value === undefined)

const record = useQuery({
  queryKey: computed(() => ['record', props.object, routeKey.value]),
  queryFn: () => showRecord(props.object, routeKey.value!),
  enabled: computed(() => !isNew.value),
})
const busy = ref(false)
const MOST_BESIDE = 5
const stored = computed<RecordView | undefined>(() => (isNew.value ? undefined : record.data.value))
const form = useRecordForm(object, stored, isNew)
const { values, sent, isChanged, general, problem, said, warnings, isHidden, isRequired, flagsOf, set } = form
const place = computed(() => ({ object: props.object, key: stored.value?.id, values: sent.value }))

const transitions = useQuery({
  queryKey: computed(() => ['transitions', props.object, stored.value?.id, stored.value?.version]),
  queryFn: () => transitionsOf(props.object, stored.value!.id),
  enabled: computed(() => !!stored.value && !!object.value?.lifecycle && !stored.value.retired),
})
const state = computed(() => String(stored.value?.values[object.value?.lifecycle?.field ?? ''] ?? ''))
/** Those that lead on from here; others would only be noise. */
const possible = computed(() =>
  (transitions.data.value ?? []).filter((one) =>
    object.value!.lifecycle!.transitions.find((other) => other.name === one.name)?.from.includes(state.value),
  ),
)
async function transit(one: TransitionState) {
  busy.value = true
  form.quiet()
  try {
    const at = stored.value!
    const now = await takeTransition(props.object, at.id, one.name, at.version)
    queries.setQueryData(['record', props.object, routeKey.value], now)
    void toast.success(`${one.label}: done.`)
  } catch (error) {
    form.tell(error)
  } finally {
    busy.value = false
  }
}
/** What can be done with this record beside its transitions; a function may stand in for one of them. */
const functions = computed(() =>
  (object.value?.functions ?? []).filter((one) => one.external && one.onRecord),
)
const standingIn = (name: string) => functions.value.find((one) => one.name === name)
const others = computed(() =>
  functions.value.filter(
    (one) => !object.value!.lifecycle?.transitions.some((transition) => transition.name === one.name),
  ),
)
const calling = ref<ObjectFunctionView>()
function step(one: TransitionState) {
  const instead = standingIn(one.name)
  if (instead) calling.value = instead
  else void transit(one)
}
async function called() {
  await record.refetch()
}

const isRetired = computed(() => stored.value?.retired ?? false)
const may = (action: 'CREATE' | 'EDIT' | 'RETIRE') => object.value?.actions.includes(action) ?? false
/** Whether somebody who sees the record may not change it. */
const isFixed = computed(() => !may(isNew.value ? 'CREATE' : 'EDIT'))
/** The lists at the side: those the layout names, or all there are. */
const related = computed(() => sideLists(object.value, objects.value, stored.value))

async function save() {
  busy.value = true
  form.quiet()
  try {
    const saved = stored.value
      ? await changeRecord(props.object, stored.value.id, stored.value.version, sent.value)
      : await createRecord(props.object, sent.value)
    await settle(saved)
    void toast.success('Saved.')
  } catch (error) {
    form.tell(error)
  } finally {
    busy.value = false
  }
}

async function settle(saved: RecordView) {
  const address = addressOf(object.value!.key, saved)
  queries.setQueryData(['record', props.object, address], saved)
  form.settle(saved)
  if (address !== routeKey.value) {
    leaving = true
    await router.replace(`/data/${props.object}/record/${encodeURIComponent(address)}`)
    leaving = false
  }
}

function remove() {
  const deletes = object.value!.removal === 'delete'
  Modal.confirm({
    title: `${deletes ? 'Delete' : 'Retire'} this ${object.value!.label.toLowerCase()}?`,
    content: deletes
      ? 'It is gone for good.'
      : 'It disappears from lists and pick lists. Records that use it keep it, and it can be restored.',
    okText: deletes ? 'Delete' : 'Retire',
    onOk: () => retire(false),
  })
}

/** Retires the record; when others use it, only after it was asked once more. */
async function retire(used: boolean) {
  try {
    const gone = await removeRecord(props.object, stored.value!.id, used)
    if (gone) queries.setQueryData(['record', props.object, routeKey.value], gone)
    else await router.push(`/data/${props.object}`)
  } catch (error) {
    const inUse =
      error instanceof ApiProblem && error.problem.errors?.some((one) => one.code === CODES.IN_USE)
    if (inUse && !used && object.value!.whenUsed === 'ASK') {
      Modal.confirm({
        title: 'Others use it',
        content: 'Records that use it keep it; it can no longer be chosen.',
        okText: 'Retire it all the same',
        onOk: () => retire(true),
      })
    } else {
      form.tell(error)
    }
  }
}

async function restore() {
  try {
    const back = await restoreRecord(props.object, stored.value!.id)
    queries.setQueryData(['record', props.object, routeKey.value], back)
  } catch (error) {
    form.tell(error)
  }
}

let leaving = false
onBeforeRouteLeave(() => {
  if (leaving || !isChanged.value) return true
  return confirm('What you entered is not saved. Leave all the same?')
})

const heading = computed(() => {
  const of = object.value
  if (!of) return ''
  return isNew.value ? `New ${of.label.toLowerCase()}` : `${of.label} ${routeKey.value}`
})
const titleOf = (field: string) => {
  const title = stored.value?.titles[field]
  return typeof title === 'string' && stored.value?.values[field] === values.value[field] ? title : undefined
}
const itemTitles = (part: string) => {
  const titles = stored.value?.titles[part]
  return Array.isArray(titles) ? titles : []
}
const sections = computed(() =>
  sectionsOf(object.value, (field) => isHidden(field)).filter((one) => one.fields.length),
)
</script>

<template>
  <div class="page">
    <LoadState
      :loading="modelLoading || (!isNew && record.isLoading.value)"
      :error="modelError ?? record.error.value"
      @retry="record.refetch()"
    >
      <template v-if="object">
        <div class="page-head">
          <RouterLink :to="`/data/${object.name}`">{{ object.plural }}</RouterLink>
          <span class="quiet">/</span>
          <h1>{{ heading }}</h1>
          <Tag v-if="isRetired">retired</Tag>
          <Tag v-else-if="state" color="cyan" data-test="state">{{ state }}</Tag>
          <div class="spacer"></div>
          <span v-if="isChanged" class="quiet">Not saved yet</span>
          <Tooltip
            v-for="one in possible"
            :key="one.name"
            :title="
              isChanged ? 'Save first.' : one.reasons.map((reason) => reason.message).join(' ') || undefined
            "
          >
            <span>
              <Button :disabled="isChanged || one.reasons.length > 0 || busy" @click="step(one)">{{
                one.label
              }}</Button>
            </span>
          </Tooltip>
          <template v-if="stored && !isRetired && !isFixed">
            <Button v-for="one in others" :key="one.name" :disabled="isChanged" @click="calling = one">{{
              one.label
            }}</Button>
          </template>
          <CallFunction
            v-if="calling && stored"
            :object="object.name"
            :definition="calling"
            :keys="[addressOf(object.key, stored)]"
            @done="called"
            @left="calling = undefined"
          />
          <Button v-if="may('RETIRE') && stored && !isRetired && object.removal !== 'none'" @click="remove">
            {{ object.removal === 'delete' ? 'Delete' : 'Retire' }}
          </Button>
          <Button v-if="isRetired && may('RETIRE')" @click="restore">Restore</Button>
          <Button
            v-if="!isFixed"
            type="primary"
            :disabled="!isChanged || isRetired"
            :loading="busy"
            @click="save"
            >Save</Button
          >
        </div>
        <Alert
          v-if="problem || general"
          type="error"
          show-icon
          :message="problem || general"
          class="problem"
        />
        <Alert
          v-for="(warning, at) in warnings"
          :key="at"
          type="warning"
          show-icon
          :message="warning.message"
          class="problem"
        />
        <div class="columns">
          <div>
            <section v-for="(section, at) in sections" :key="at" class="card section">
              <h2 v-if="section.heading">{{ section.heading }}</h2>
              <div class="grid">
                <div
                  v-for="field in section.fields"
                  :key="field.name"
                  :class="['field', { wide: isWide(object, field) }]"
                >
                  <label :for="`f-${field.name}`">
                    {{ field.label
                    }}<span v-if="isRequired(field) && !field.readOnly" class="star" title="Required">*</span>
                  </label>
                  <FieldInput
                    :id="`f-${field.name}`"
                    :field="field"
                    :value="values[field.name]"
                    :title="titleOf(field.name)"
                    :disabled="isRetired || isFixed || field.readOnly || !!flagsOf(field.name)?.readOnly"
                    :wrong="!!said[field.name]"
                    :place="{ ...place, field: field.name }"
                    :file="stored && fileAddress(object.name, stored.id, field.name)"
                    @update="(now) => set(field.name, now)"
                  />
                  <div v-if="said[field.name]" class="wrong" role="alert">{{ said[field.name] }}</div>
                  <div v-else-if="isNew && object.numbered === field.name" class="hint">
                    Given when it is saved.
                  </div>
                  <div v-else-if="field.describe" class="hint">{{ field.describe }}</div>
                  <ReferenceDetails
                    v-if="object.layout.details[field.name]?.length && values[field.name]"
                    :to="objects.find((one) => one.name === field.to)"
                    :address="String(values[field.name])"
                    :fields="object.layout.details[field.name]"
                  />
                </div>
              </div>
            </section>
            <ItemTable
              v-for="part in object.parts"
              :key="part.name"
              :part="part"
              :items="(values[part.name] as Values[]) ?? []"
              :titles="itemTitles(part.name)"
              :messages="said"
              :disabled="isRetired || isFixed"
              :flags="form.flags.value"
              :place="place"
              :file="
                stored && ((line, field) => fileAddress(object!.name, stored!.id, part.name, line, field))
              "
              @update="(now) => set(part.name, now)"
            />
          </div>
          <aside v-if="stored">
            <SideList
              v-for="one in related"
              :key="`${one.target.name}.${one.field}`"
              :list="one"
              :at-most="MOST_BESIDE"
            />
            <RecordHistory :object="object.name" :record="stored" />
          </aside>
        </div>
      </template>
      <div v-else class="empty">There is no object {{ props.object }} in the live release.</div>
    </LoadState>
  </div>
</template>

<style scoped>
.columns {
  display: flex;
  gap: 12px;
  align-items: flex-start;
}
.columns > div {
  flex: 1;
  min-width: 0;
}
aside {
  width: 330px;
  display: grid;
  gap: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 12px 16px;
}
.wide {
  grid-column: span 2;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
  .wide {
    grid-column: auto;
  }
}
label {
  display: block;
  margin-bottom: 3px;
  color: var(--quiet);
}
.star {
  color: var(--bad);
  margin-left: 2px;
}
.wrong {
  color: var(--bad);
  font-size: 12.5px;
  margin-top: 2px;
}
.hint {
  color: var(--quiet);
  font-size: 12.5px;
  margin-top: 2px;
}
.problem {
  margin-bottom: 12px;
}
.section + .section {
  margin-top: 12px;
}
.section h2 {
  margin: 0 0 10px;
}
@media (max-width: 1000px) {
  .columns {
    flex-direction: column;
    align-items: stretch;
  }
  aside {
    width: auto;
  }
}
</style>
