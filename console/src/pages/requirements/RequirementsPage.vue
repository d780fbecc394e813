<script setup lang="ts">
import { Button, Tag } from 'ant-design-vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, unwrap, type RequirementView } from '@/api/client'
import LoadState from '@/components/LoadState.vue'
import StepTree from '@/components/StepTree.vue'

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
    </div>
    <LoadState :loading="played.isLoading.value" :error="played.error.value" @retry="played.refetch()">
      <div v-if="!requirements.length" class="empty">
        No requirement is written down yet: what was asked for, line by line, each with examples that prove
        it.
        <p><RouterLink to="/packages">Make a file of requirements in a package</RouterLink></p>
      </div>
      <section v-else class="card">
        <article v-for="one in requirements" :key="one.id" class="one" :data-test="one.id">
          <Tag :color="WORDS[one.proof].colour" class="proof">{{ WORDS[one.proof].text }}</Tag>
          <code class="id">{{ one.id }}</code>
          <div>
            <div class="text">{{ one.text }}</div>
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
