<script setup lang="ts">
import { count as counted } from '@/composables/format'
import { Alert, Button, Modal, Progress, Select } from 'ant-design-vue'
import { computed, ref } from 'vue'
import type { ObjectView } from '@/api/client'
import { reasonOf, sendBatch } from '@/api/importing'
import {
  download,
  guess,
  readDataFile,
  portion,
  recordsOf,
  refusedCsv,
  targetsOf,
  type DataFile,
} from './dataFile'

/** Brings records in out of a file: columns matched, looked at before anything is written, then written. */
const props = defineProps<{ object: ObjectView }>()
const emit = defineEmits<{ left: []; done: [] }>()

const BATCH = 200
const LOOKED_AT = 50
const SHOWN = 5

const file = ref<DataFile>()
const matching = ref<Record<string, string>>({})
const problem = ref('')
const stage = ref<'choose' | 'looking' | 'looked' | 'writing' | 'written'>('choose')
const counts = ref({ created: 0, changed: 0, refused: 0 })
const refused = ref<{ rows: number[]; reason: string }[]>([])
const reached = ref(0)
let cancelled = false

const targets = computed(() => targetsOf(props.object))
const records = computed(() => (file.value ? recordsOf(file.value, matching.value, props.object) : []))
const missingKey = computed(() =>
  props.object.key.filter((name) => !Object.values(matching.value).some((one) => one.split('.')[0] === name)),
)

async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  problem.value = ''
  file.value = undefined
  try {
    const read = await readDataFile(chosen)
    matching.value = guess(read.columns, props.object)
    file.value = read
    await look()
  } catch (wrong) {
    problem.value = (wrong as Error).message
    stage.value = 'choose'
  }
}

function match(column: string, target: string | undefined) {
  const now = { ...matching.value }
  for (const [other, taken] of Object.entries(now)) if (taken === target) delete now[other]
  if (target) now[column] = target
  else delete now[column]
  matching.value = now
  void look()
}

let turn = 0
/** Tries the first records; nothing is kept. */
async function look() {
  const mine = ++turn
  stage.value = 'looking'
  problem.value = ''
  try {
    const some = portion(records.value, 0, LOOKED_AT)
    const results = some.length
      ? await sendBatch(
          props.object.name,
          some.map((one) => one.values),
          true,
        )
      : []
    if (mine !== turn) return
    count(some, results)
    stage.value = 'looked'
  } catch (wrong) {
    if (mine !== turn) return
    problem.value = (wrong as Error).message
    stage.value = 'looked'
  }
}

function count(some: { rows: number[] }[], results: Awaited<ReturnType<typeof sendBatch>>, fresh = true) {
  if (fresh) {
    counts.value = { created: 0, changed: 0, refused: 0 }
    refused.value = []
  }
  results.forEach((result, at) => {
    if (result.status === 'refused') {
      counts.value.refused++
      refused.value.push({ rows: some[at].rows, reason: reasonOf(result) })
    } else if (result.status === 'created') counts.value.created++
    else counts.value.changed++
  })
}

async function write() {
  stage.value = 'writing'
  problem.value = ''
  cancelled = false
  reached.value = 0
  count([], [])
  const all = records.value
  try {
    while (reached.value < all.length && !cancelled) {
      const some = portion(all, reached.value, BATCH)
      count(
        some,
        await sendBatch(
          props.object.name,
          some.map((one) => one.values),
          false,
        ),
        false,
      )
      reached.value += some.length
    }
  } catch (wrong) {
    problem.value = `${(wrong as Error).message} ${reached.value} of ${all.length} records were worked on before; the same file can be brought in again, what is there is found by its key.`
  }
  stage.value = 'written'
  emit('done')
}

function keepRefused() {
  download(`${file.value!.name.replace(/\.\w+$/, '')}-refused.csv`, refusedCsv(file.value!, refused.value))
}
const sample = (column: string) => {
  const value = file
    .value!.rows.slice(0, SHOWN)
    .map((row) => row[column])
    .find((one) => one !== '' && one != null)
  return typeof value === 'object' ? JSON.stringify(value) : value
}
</script>

<template>
  <Modal
    open
    :title="`Bring ${object.plural.toLowerCase()} in`"
    width="820px"
    :mask-closable="false"
    @cancel="((cancelled = true), emit('left'))"
  >
    <div class="form">
      <label v-if="stage !== 'writing' && stage !== 'written'" class="file">
        A CSV file with a line of column names, or JSON Lines; in UTF-8
        <input type="file" accept=".csv,.txt,.tsv,.jsonl,.ndjson,.json" @change="take" />
      </label>
      <template v-if="file && (stage === 'looked' || stage === 'looking')">
        <p>
          <strong>{{ file.name }}</strong>: {{ counted(file.rows.length) }} rows,
          {{ counted(records.length) }} records.
          <span class="quiet"
            >Records are found by their key; what is there is changed, what is not is created.</span
          >
        </p>
        <div class="columns" tabindex="0" aria-label="Columns">
          <table>
            <thead>
              <tr>
                <th>Column</th>
                <th>First value</th>
                <th>Goes to</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="column in file.columns" :key="column">
                <td class="mono">{{ column }}</td>
                <td class="quiet value">{{ sample(column) }}</td>
                <td>
                  <Select
                    :value="matching[column]"
                    :options="targets"
                    option-filter-prop="label"
                    show-search
                    allow-clear
                    size="small"
                    placeholder="left out"
                    style="width: 260px"
                    :aria-label="`Field for ${column}`"
                    @change="(now) => match(column, now as string | undefined)"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <Alert
          v-if="missingKey.length"
          type="warning"
          show-icon
          :message="`No column goes to ${missingKey.join(', ')}, so records that are there are not found again.`"
        />
        <Alert
          v-if="stage === 'looked' && !problem"
          :type="counts.refused ? 'warning' : 'success'"
          show-icon
          data-test="looked"
        >
          <template #message>
            Of the first {{ Math.min(records.length, LOOKED_AT) }}, {{ counts.created }} would be created,
            {{ counts.changed }} changed and {{ counts.refused }} refused. Nothing is written yet.
            <div v-for="one in refused.slice(0, SHOWN)" :key="one.rows[0]">
              Row {{ one.rows.join(', ') }}: {{ one.reason }}
            </div>
          </template>
        </Alert>
      </template>
      <template v-if="stage === 'writing' || stage === 'written'">
        <Progress
          :percent="records.length ? Math.floor((100 * reached) / records.length) : 0"
          :status="stage === 'writing' ? 'active' : undefined"
        />
        <p data-test="written" role="status">
          {{ counted(counts.created) }} created, {{ counted(counts.changed) }} changed or the same,
          {{ counted(counts.refused) }} refused.
          <template v-if="stage === 'written' && reached < records.length"
            >Stopped after {{ counted(reached) }} of {{ counted(records.length) }}.</template
          >
        </p>
        <div v-for="one in refused.slice(0, SHOWN)" :key="one.rows[0]" class="quiet">
          Row {{ one.rows.join(', ') }}: {{ one.reason }}
        </div>
        <div v-if="stage === 'written' && refused.length">
          <Button size="small" @click="keepRefused">Save the refused rows as a file</Button>
        </div>
      </template>
      <Alert v-if="problem" type="error" show-icon :message="problem" />
    </div>
    <template #footer>
      <template v-if="stage === 'writing'"><Button @click="cancelled = true">Stop</Button></template>
      <Button v-else-if="stage === 'written'" type="primary" @click="emit('left')">Close</Button>
      <template v-else>
        <Button @click="emit('left')">Cancel</Button>
        <Button type="primary" :disabled="stage !== 'looked' || !records.length" @click="write"
          >Bring {{ counted(records.length) }} in</Button
        >
      </template>
    </template>
  </Modal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.file {
  display: grid;
  gap: 4px;
}
p {
  margin: 0;
}
.columns {
  max-height: 280px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 6px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12.5px;
  color: var(--quiet);
  padding: 4px 8px;
}
td {
  padding: 3px 8px;
  border-top: 1px solid var(--line);
}
.value {
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
