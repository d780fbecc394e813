<script setup lang="ts">
import { Button, Tag, message as toast } from 'ant-design-vue'
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, unwrap, type RequirementView } from '@/api/client'
import { keepFile } from '@/api/draft'
import LoadState from '@/components/LoadState.vue'
import StepTree from '@/components/StepTree.vue'
import { useDraft } from '@/composables/model'
import { kindOf, pathOf, useOpenPackages } from '@/composables/packages'
import { addRequirement, nextId, readRequirements } from '@/editor/requirementFile'

const played = useQuery({
  queryKey: ['requirements'],
  queryFn: () => unwrap(api.GET('/manage/v1/requirements')),
})
const WORDS = {
  PROVED: { text: 'proved', colour: 'green' },
  FAILING: { text: 'failing', colour: 'red' },
  OPEN: { text: 'open', colour: 'gold' },
} as const
/** What needs somebody comes first. */
const ORDER: RequirementView['proof'][] = ['FAILING', 'OPEN', 'PROVED']
const requirements = computed(() =>
  [...(played.data.value?.requirements ?? [])].sort(
    (one, other) => ORDER.indexOf(one.proof) - ORDER.indexOf(other.proof),
  ),
)
const router = useRouter()
const queries = useQueryClient()
const { data: draft } = useDraft()
const files = computed(() => (draft.value?.files ?? []).filter((one) => kindOf(one.path) === 'requirement'))
const open = useOpenPackages(draft)
/** The package that a new requirement goes into: one that has some already, else the last. */
const folder = computed(() => {
  const names = open.value.map((one) => one.name)
  return names.find((name) => files.value.some((one) => one.path.startsWith(`${name}/`))) ?? names.at(-1)
})
const fileOf = (id: string) =>
  files.value.find((one) => readRequirements(one.text)?.requirements.some((other) => other.id === id))?.path
const making = ref(false)
/** Adds a requirement to the package's file, which is made when there is none. */
async function make() {
  making.value = true
  try {
    const there = files.value.find((one) => one.path.startsWith(`${folder.value}/`))
    const path = there?.path ?? pathOf(folder.value!, 'requirement', 'requirements')
    const id = nextId(requirements.value.map((one) => one.id).sort())
    await keepFile(path, addRequirement(there?.text ?? '', id), there?.text)
    await queries.invalidateQueries()
    await router.push({ path: `/requirements/write/${path}`, query: { id } })
  } catch (wrong) {
    void toast.error((wrong as Error).message)
  } finally {
    making.value = false
  }
}
const opened = ref<string>()
const toggle = (name: string) => (opened.value = opened.value === name ? undefined : name)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>Requirements</h1>
      <template v-if="played.data.value">
        <Tag v-if="played.data.value.failing" color="red">{{ played.data.value.failing }} failing</Tag>
        <Tag v-if="played.data.value.open" color="gold">{{ played.data.value.open }} open</Tag>
        <Tag v-if="requirements.length" color="green" data-test="proved"
          >{{ played.data.value.proved }} proved</Tag
        >
      </template>
      <span class="quiet">What was asked for, and whether the draft does it</span>
      <div class="spacer"></div>
      <Button :loading="played.isFetching.value" @click="played.refetch()">Play again</Button>
      <Button v-if="folder" type="primary" :loading="making" @click="make">New requirement</Button>
    </div>
    <LoadState :loading="played.isLoading.value" :error="played.error.value" @retry="played.refetch()">
      <div v-if="!requirements.length" class="empty">
        No requirement is written down yet: what was asked for, line by line, each with examples that prove
        it.
        <p v-if="folder">
          <Button type="primary" :loading="making" @click="make">Write the first requirement</Button>
        </p>
        <p v-else><RouterLink to="/packages">Make a package first</RouterLink></p>
      </div>
      <section v-else class="card">
        <article v-for="one in requirements" :key="one.id" class="one" :data-test="one.id">
          <Tag :color="WORDS[one.proof].colour" class="proof">{{ WORDS[one.proof].text }}</Tag>
          <code class="id">{{ one.id }}</code>
          <div>
            <div class="text">
              {{ one.text }}
              <RouterLink v-if="fileOf(one.id)" :to="`/requirements/write/${fileOf(one.id)}`" class="edit"
                >Edit</RouterLink
              >
            </div>
            <p v-if="!one.examples.length" class="quiet">It has no example yet.</p>
            <div v-for="example in one.examples" :key="example.name">
              <button class="example" @click="toggle(`${one.id} ${example.name}`)">
                <span :class="example.holds ? 'good' : 'bad'">{{ example.holds ? '✓' : '✗' }}</span>
                {{ example.label }}
                <span class="quiet">{{ example.file }}:{{ example.line }}</span>
              </button>
              <div v-for="(problem, at) in example.problems" :key="at" class="bad problem">{{ problem }}</div>
              <div v-if="opened === `${one.id} ${example.name}`" class="steps">
                <StepTree :steps="example.steps" />
              </div>
            </div>
          </div>
        </article>
      </section>
    </LoadState>
  </div>
</template>

<style scoped>
.one {
  display: grid;
  grid-template-columns: 76px 52px minmax(0, 1fr);
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.one:last-child {
  border: 0;
}
.proof {
  justify-self: start;
}
.id {
  color: var(--quiet);
}
.text {
  font-weight: 500;
}
.edit {
  font-weight: 400;
  margin-left: 8px;
}
.example {
  border: 0;
  background: none;
  color: var(--text);
  font: inherit;
  font-size: 13px;
  padding: 2px 0;
  cursor: pointer;
}
.example .quiet {
  font-size: 12px;
  margin-left: 6px;
}
.good {
  color: var(--good);
}
.bad {
  color: var(--bad);
}
.problem {
  margin-left: 16px;
  font-size: 13px;
}
.steps {
  margin: 4px 0 8px 16px;
}
</style>
