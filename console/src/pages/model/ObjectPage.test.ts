import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { Segmented } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, ref, watch, type Ref } from 'vue'
import FieldGrid from './FieldGrid.vue'
import ObjectPage from './ObjectPage.vue'

const BOAT = `object: Boat
key: code
fields:
  code: { type: text }
  rig: { type: choice, choices: Rig }
parts:
  sails:
    fields:
      area: { type: decimal }
`
const WIDE = `extend: Boat
fields:
  wide: { type: boolean, formula: beam > 4 }
`
const PORTS = `connection: port
lookups:
  gauges: { call: GET /gauges, key: id }
`

type DraftFile = { path: string; text: string }
const files = ref<DraftFile[]>([])
const sealed = ref<string[]>([])
const live = ref<object[]>([])
const asked = ref<Record<string, string>>({})
vi.mock('vue-router', () => ({ useRoute: () => ({ query: asked.value }) }))
vi.mock('@/composables/model', () => ({
  useModel: () => ({ objects: live }),
  useDraft: () => ({
    data: computed(() => ({ files: files.value, sealed: sealed.value, languages: {} })),
    isLoading: ref(false),
    error: ref(null),
  }),
}))
/** A file that is edited, without a service that keeps it. */
vi.mock('@/composables/draftFile', () => ({
  STATE_WORDS: { kept: 'Kept in the draft' },
  useDraftFile: (file: Ref<DraftFile | undefined>) => {
    const text = ref('')
    watch(file, (now) => (text.value = now?.text ?? ''), { immediate: true })
    return {
      path: computed(() => file.value?.path ?? ''),
      text,
      mine: ref([]),
      elsewhere: ref([]),
      problem: ref(''),
      state: ref('kept'),
      isSealed: computed(() => sealed.value.includes(file.value?.path.split('/')[0] ?? '')),
      change: (now: string) => (text.value = now),
      settle: () => Promise.resolve(),
    }
  },
}))

const reveal = vi.fn()
const stubs = {
  RouterLink: { props: ['to'], template: '<a><slot /></a>' },
  YamlEditor: { props: ['text', 'readOnly'], methods: { reveal }, template: '<pre>{{ text }}</pre>' },
  UndoRedo: true,
  UsesDrawer: { props: ['subject'], template: '<aside>{{ subject }}</aside>' },
  ExtendButton: { template: '<button>Extend it</button>' },
  ObjectFacts: true,
  DataEffects: true,
  ArrivingFields: true,
  LayoutTab: true,
  ChecksTab: { template: '<p>the checks</p>' },
  TryIt: { template: '<p>to be tried</p>' },
}
let shown: VueWrapper
async function page(object = 'Boat') {
  shown = mount(ObjectPage, { props: { object }, global: { stubs }, attachTo: document.body })
  await flushPromises()
}
async function choose(tab: string) {
  shown
    .findAllComponents(Segmented)
    .find((one) => (one.props('options') as string[]).includes(tab))!
    .vm.$emit('update:value', tab)
  await flushPromises()
}
const tabs = () =>
  shown
    .findAllComponents(Segmented)
    .map((one) => one.props('options') as string[])
    .find((options) => options.includes('Formulas'))
const rows = () =>
  shown
    .findComponent(FieldGrid)
    .props('rows')
    .map((row) => row.name)
const button = (words: string) => shown.findAll('button').find((one) => one.text().includes(words))

beforeEach(() => {
  files.value = [
    { path: 'yard/objects/boat.yaml', text: BOAT },
    { path: 'own/extensions/boat.yaml', text: WIDE },
    { path: 'yard/choices/rig.yaml', text: 'choices: Rig\ncodes: { sloop: Sloop }\n' },
    { path: 'yard/connections/port.yaml', text: PORTS },
  ]
  sealed.value = []
  live.value = []
  asked.value = {}
  reveal.mockClear()
})
afterEach(() => shown.unmount())

describe('the page of an object', () => {
  it('shows its fields, with the lists and lookups a choice can be of', async () => {
    await page()
    expect(rows()).toEqual(['code', 'rig'])
    expect(shown.findComponent(FieldGrid).props()).toMatchObject({
      objects: ['Boat'],
      lists: ['Rig'],
      lookups: ['port.gauges'],
    })
  })

  it('shows line items, adds others and goes to them', async () => {
    await page()
    await choose('sails')
    expect(rows()).toEqual(['area'])
    await button('Line items')!.trigger('click')
    await flushPromises()
    expect(tabs()).toContain('lines')
    expect(rows()).toEqual(['description'])
    expect(shown.find('pre').text()).toContain('lines:')
  })

  it('goes back to the fields when the line items shown are taken away', async () => {
    await page()
    await choose('sails')
    shown.findComponent({ name: 'PartHead' }).vm.$emit('update', BOAT.split('parts:')[0])
    await flushPromises()
    expect(tabs()).not.toContain('sails')
    expect(rows()).toEqual(['code', 'rig'])
  })

  it('knows what is released, of itself and of its line items', async () => {
    live.value = [
      { name: 'Boat', fields: [{ name: 'code' }], parts: [{ name: 'sails', fields: [{ name: 'area' }] }] },
    ]
    await page()
    expect(shown.findComponent(FieldGrid).props('released')).toEqual(['code'])
    await choose('sails')
    expect(shown.findComponent(FieldGrid).props('released')).toEqual(['area'])
  })

  it('tells what other files add, and opens them', async () => {
    await page()
    expect(shown.find('.added').text().replace(/\s+/g, ' ')).toContain('wide by own.')
    await shown.find('.added a').trigger('click')
    await flushPromises()
    expect(rows()).toEqual(['wide'])
    expect(tabs()).not.toContain('Lifecycle')
    expect(shown.find('.added').exists()).toBe(false)
  })

  it('only shows what is delivered, and offers to extend it', async () => {
    sealed.value = ['yard']
    await page()
    expect(shown.text()).toContain('delivered, not edited here')
    expect(button('Line items')).toBeUndefined()
    expect(button('Extend it')).toBeDefined()
    expect(shown.findComponent(FieldGrid).props('readOnly')).toBe(true)
  })

  it('keeps the text beside, or away for whoever never looks at it', async () => {
    await page()
    expect(shown.find('pre').exists()).toBe(true)
    await button('Hide text')!.trigger('click')
    expect(shown.find('pre').exists()).toBe(false)
    shown.unmount()
    await page()
    expect(shown.find('pre').exists()).toBe(false)
    await button('Show text')!.trigger('click')
    expect(shown.find('pre').exists()).toBe(true)
  })

  it('lets logic be tried beside it', async () => {
    await page()
    await choose('Checks')
    expect(shown.text()).toContain('the checks')
    await choose('Try it')
    expect(shown.text()).toContain('to be tried')
    expect(shown.find('pre').exists()).toBe(false)
  })

  it('says that a text cannot be read, and keeps it', async () => {
    files.value[0].text = 'object: Boat\nkey: code\nfields:\n  code: { type: text\n'
    await page()
    expect(shown.text()).toContain('is not YAML just now')
    expect(shown.find('pre').text()).toContain('{ type: text')
    expect(shown.findComponent(FieldGrid).exists()).toBe(false)
  })

  it('opens the file in which something is named that an account of a request leads to', async () => {
    asked.value = { at: 'wide' }
    await page()
    expect(rows()).toEqual(['wide'])
    expect(reveal).toHaveBeenCalledWith(3, undefined)
  })

  it('asks where it is used, and where one of its fields is', async () => {
    await page()
    await button('Used by')!.trigger('click')
    expect(shown.find('aside').text()).toContain('"object"')
    shown.findComponent(FieldGrid).vm.$emit('uses', 'rig')
    await flushPromises()
    expect(shown.find('aside').text()).toContain('"rig"')
  })

  it('says when there is no such object', async () => {
    await page('Kite')
    expect(shown.text()).toContain('No file of the draft defines an object Kite.')
  })
})
