<script setup lang="ts">
import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons-vue'
import { Alert, Button, Input, Modal } from 'ant-design-vue'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, ref } from 'vue'
import { keepFile } from '@/api/draft'
import UsesDrawer from '@/components/UsesDrawer.vue'
import { useJournal } from '@/composables/journal'
import { languagesOf } from '@/composables/languages'
import { useDraft } from '@/composables/model'
import { pathOf } from '@/composables/packages'
import { newChoices, readChoices, writeChoices, wrongChoices, type ChoiceRow } from '@/editor/choicesFile'

/** A choice list as a table of codes and labels; without a file, a new one of the package. */
const props = defineProps<{
  folder: string
  file?: { path: string; text: string }
  name?: string
  taken: string[]
  readOnly?: boolean
}>()
const emit = defineEmits<{ saved: [name: string]; left: [] }>()

const queries = useQueryClient()
const journal = useJournal()
const name = ref(props.name ?? '')
const { data: draft } = useDraft()
const languages = computed(() => languagesOf(draft.value, `${props.file?.path ?? props.folder}/`))
const rows = ref<ChoiceRow[]>(
  props.file
    ? readChoices(props.file.text, languages.value[0])
    : [
        { code: '', label: '', labels: {} },
        { code: '', label: '', labels: {} },
      ],
)
const problem = ref('')
const busy = ref(false)
const asking = ref(false)
const table = ref<HTMLElement>()

async function add() {
  rows.value.push({ code: '', label: '', labels: {} })
  await nextTick()
  const inputs = table.value?.querySelectorAll<HTMLInputElement>('input.code')
  inputs?.[inputs.length - 1]?.focus()
}

function move(at: number, by: number) {
  const [row] = rows.value.splice(at, 1)
  rows.value.splice(at + by, 0, row)
}

async function save() {
  const filled = rows.value
    .map((row) => ({ ...row, code: row.code.trim(), label: row.label.trim() }))
    .filter((row) => row.code || row.label)
  problem.value = wrongChoices(filled)
  if (!problem.value && !props.file) {
    if (!/^[A-Z][A-Za-z0-9]{0,59}$/.test(name.value))
      problem.value = 'A list is named with a capital letter first, such as OrderKind.'
    else if (props.taken.includes(name.value)) problem.value = `There is a list ${name.value} already.`
  }
  if (problem.value) return
  busy.value = true
  try {
    const path = props.file?.path ?? pathOf(props.folder, 'choices', name.value)
    const text = props.file
      ? writeChoices(props.file.text, filled, languages.value[0])
      : newChoices(name.value, filled, languages.value[0])
    await keepFile(path, text, props.file?.text)
    if (props.file) journal.note(path, props.file.text, text)
    await queries.invalidateQueries()
    emit('saved', name.value)
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
    :title="file ? `Choice list ${name}` : 'New choice list'"
    :ok-text="file ? 'Keep it' : 'Create'"
    :ok-button-props="{ loading: busy, disabled: readOnly }"
    @ok="save"
    @cancel="emit('left')"
  >
    <div class="form">
      <label v-if="!file">
        Name
        <Input v-model:value="name" class="mono" placeholder="OrderKind" aria-label="Name of the list" />
      </label>
      <table ref="table">
        <thead>
          <tr>
            <th>Code, as it is stored</th>
            <th>Label, as people read it</th>
            <th v-for="language in languages.slice(1)" :key="language">in {{ language }}</th>
            <th><span class="unseen">Tools</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, at) in rows" :key="at">
            <td>
              <input
                v-model="row.code"
                class="code mono"
                :disabled="readOnly"
                :aria-label="`Code ${at + 1}`"
                @keydown.enter.prevent="at === rows.length - 1 ? add() : undefined"
              />
            </td>
            <td>
              <input
                v-model="row.label"
                :disabled="readOnly"
                :placeholder="row.code"
                :aria-label="`Label ${at + 1}`"
                @keydown.enter.prevent="at === rows.length - 1 ? add() : undefined"
              />
            </td>
            <td v-for="language in languages.slice(1)" :key="language">
              <input
                v-model="row.labels[language]"
                :disabled="readOnly"
                :aria-label="`Label ${at + 1} in ${language}`"
              />
            </td>
            <td v-if="!readOnly" class="tools">
              <Button
                type="text"
                size="small"
                :disabled="at === 0"
                :aria-label="`Move ${row.code} up`"
                @click="move(at, -1)"
                ><ArrowUpOutlined
              /></Button>
              <Button
                type="text"
                size="small"
                :disabled="at === rows.length - 1"
                :aria-label="`Move ${row.code} down`"
                @click="move(at, 1)"
                ><ArrowDownOutlined
              /></Button>
              <Button type="text" size="small" :aria-label="`Remove ${row.code}`" @click="rows.splice(at, 1)"
                ><DeleteOutlined
              /></Button>
            </td>
          </tr>
        </tbody>
      </table>
      <div v-if="!readOnly">
        <Button size="small" @click="add"><PlusOutlined /> Add code</Button>
      </div>
      <Button v-if="file" type="link" size="small" class="uses" @click="asking = true">Used by</Button>
      <UsesDrawer v-if="asking" :subject="{ kind: 'choices', name }" @left="asking = false" />
      <p v-if="file" class="quiet">
        A code that is taken away while records have it stands in the way of a release.
      </p>
      <Alert v-if="problem" type="error" show-icon :message="problem" />
    </div>
  </Modal>
</template>

<style scoped>
.form,
label {
  display: grid;
  gap: 6px;
}
.form {
  gap: 12px;
}
p {
  margin: 0;
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
}
td {
  padding: 2px 6px 2px 0;
}
td input {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 3px 6px;
  background: var(--surface);
  color: var(--text);
}
.uses {
  justify-self: start;
  padding: 0;
}
.tools {
  white-space: nowrap;
  width: 84px;
}
</style>
