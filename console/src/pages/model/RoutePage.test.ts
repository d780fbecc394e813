import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { AutoComplete, Select } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref } from 'vue'
import ArrivingFields from './ArrivingFields.vue'
import { legs } from './layout'
import RoutePage from './RoutePage.vue'

const TEXT = `route: papers
label: Papers
steps:
  - { from: Payer, to: Job, through: boat.payer }
  - { from: Job, to: Job.hours }
services: [desk]
`
const field = (name: string, more: object = {}) => ({ name, label: name, ...more })
const objects = ref<object[]>([])
const model = ref<object>()
const text = ref(TEXT)
const files = ref<object[]>([])
const isSealed = ref(false)
vi.mock('@/composables/model', () => ({
  useModel: () => ({ data: model, objects }),
  useDraft: () => ({
    data: computed(() => ({ files: files.value })),
    isLoading: ref(false),
    error: ref(null),
  }),
}))
vi.mock('@/composables/draftFile', () => ({
  STATE_WORDS: { kept: 'Kept in the draft' },
  useDraftFile: () => ({
    path: ref('yard/routes/papers.yaml'),
    text,
    mine: ref([]),
    elsewhere: ref([]),
    problem: ref(''),
    state: ref('kept'),
    isSealed,
    change: (now: string) => (text.value = now),
  }),
}))

const route = {
  name: 'papers',
  label: 'Papers',
  packageName: 'yard',
  services: ['desk'],
  steps: [
    { from: 'Payer', to: 'Job', through: ['boat', 'payer'] },
    { from: 'Job', to: 'Job', part: 'hours', through: [] },
  ],
  travellers: [
    { object: 'Payer', field: 'centre', label: 'Centre', follows: false, reaches: ['Job', 'Job.hours'] },
  ],
}
let shown: VueWrapper
const stubs = { RouterLink: { props: ['to'], template: '<a><slot /></a>' }, UndoRedo: true }
const page = (name = 'papers') =>
  (shown = mount(RoutePage, { props: { route: name }, global: { stubs }, attachTo: document.body }))
const box = (label: string) =>
  [...shown.findAllComponents(Select), ...shown.findAllComponents(AutoComplete)].find(
    (one) => one.attributes('aria-label') === label,
  )!

const prop = (label: string, name: string) => (box(label).props() as Record<string, unknown>)[name]

beforeEach(() => {
  text.value = TEXT
  isSealed.value = false
  files.value = [
    { path: 'yard/routes/papers.yaml', text: TEXT },
    { path: 'yard/services/desk.yaml', text: 'service: desk\nversion: 1\nresources: {}\n' },
  ]
  objects.value = [
    { name: 'Payer', fields: [field('code')], parts: [] },
    { name: 'Boat', fields: [field('payer', { to: 'Payer' })], parts: [] },
    {
      name: 'Job',
      fields: [
        field('boat', { to: 'Boat' }),
        field('centre', { comesFrom: { route: 'papers', object: 'Payer', field: 'centre', follows: false } }),
      ],
      parts: [{ name: 'hours', fields: [field('count')] }],
    },
    { name: 'Bill', fields: [field('job', { to: 'Job' })], parts: [] },
  ]
  model.value = { routes: [route] }
})
afterEach(() => shown.unmount())

describe('the page of a route', () => {
  it('shows its steps, its services and what travels', () => {
    page()
    expect(shown.findAll('[data-test=step]')).toHaveLength(2)
    expect(prop('Step 1 through', 'value')).toBe('boat.payer')
    expect(prop('Services', 'value')).toEqual(['desk'])
    expect(shown.find('[data-test=traveller]').text()).toContain('Payer.centre')
    expect(shown.find('[data-test=traveller]').text()).toContain('Job, Job.hours')
  })

  it('goes on from where the last step led, and finds the way back', async () => {
    page()
    await shown
      .findAll('button')
      .find((one) => one.text().includes('Add step'))!
      .trigger('click')
    await flushPromises()
    expect(prop('Step 3 from', 'value')).toBe('Job')
    box('Step 3 to').vm.$emit('change', 'Bill')
    await flushPromises()
    expect(text.value).toContain('  - { from: Job, to: Bill, through: job }\n')
    expect(prop('Step 3 through', 'options')).toEqual([{ value: 'job' }])
    box('Step 3 from').vm.$emit('change', 'Payer')
    await flushPromises()
    expect(text.value).toContain('  - { from: Payer, to: Bill, through: job.boat.payer }\n')
    await shown.find('[aria-label="Remove step 3"]').trigger('click')
    expect(text.value).toBe(TEXT)
  })

  it('changes what services show it, and what it is for', async () => {
    page()
    box('Services').vm.$emit('change', [])
    expect(text.value).not.toContain('services')
    const describing = shown.find<HTMLInputElement>('input[aria-label="What it is for"]')
    await describing.setValue('Bills.')
    await describing.trigger('change')
    expect(text.value).toContain('describe: Bills.')
  })

  it('only shows one that is delivered', () => {
    isSealed.value = true
    page()
    expect(shown.text()).toContain('not edited here')
    expect(shown.findAll('button').some((one) => one.text().includes('Add step'))).toBe(false)
    expect(prop('Step 1 from', 'disabled')).toBe(true)
  })

  it('says when nothing travels yet, and when there is no such route', () => {
    model.value = { routes: [{ ...route, travellers: [] }] }
    page()
    expect(shown.text()).toContain('Nothing yet.')
    shown.unmount()
    page('nowhere')
    expect(shown.text()).toContain('There is no route nowhere.')
  })
})

describe('what arrives along routes', () => {
  it('is told where it arrives, with where it comes from', () => {
    shown = mount(ArrivingFields, { props: { object: 'Job' }, global: { stubs } })
    expect(shown.text().replace(/\s+/g, ' ')).toBe('Along routes: centre from Payer by papers.')
    shown.unmount()
    shown = mount(ArrivingFields, { props: { object: 'Job', part: 'hours' }, global: { stubs } })
    expect(shown.text()).toBe('')
  })

  it('goes by arrows between objects, called by its fields', () => {
    page()
    expect(legs(route)).toEqual([{ id: 'route 0', from: 'Payer', to: 'Job', label: 'centre' }])
  })
})
