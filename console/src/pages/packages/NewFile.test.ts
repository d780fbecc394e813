import { Select } from 'ant-design-vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { button, press, service, show, text, type } from '@/testing/service'
import NewFile from './NewFile.vue'

vi.mock('@/api/client', async () => (await import('@/testing/service')).clientModule())

const written = () => service.changes()[0]?.body as { path: string; text: string } | undefined
const open = (kind: string, more: object = {}) =>
  show(NewFile, { folder: 'yard', kind, taken: ['yard/objects/oar.yaml'], ...more })

beforeEach(() => {
  service.forget()
  service.answers('PUT /manage/v1/draft/file', { diagnostics: [] })
  service.answers('GET /manage/v1/model', {
    objects: [
      { name: 'Boat', label: 'Boat', packageName: 'yard' },
      { name: 'Owner', label: 'Owner', packageName: 'people' },
    ],
  })
})
afterEach(() => (document.body.innerHTML = ''))

describe('a new file', () => {
  it.each([
    ['object', 'New object', 'BoatTrailer', 'yard/objects/boat-trailer.yaml', 'object: BoatTrailer'],
    ['choices', 'New choice list', 'Hull', 'yard/choices/hull.yaml', 'choices: Hull'],
    ['service', 'New service', 'order-desk', 'yard/services/order-desk.yaml', 'service: order-desk'],
    ['event', 'New event', 'BoatSold', 'yard/events/boat-sold.yaml', 'event: BoatSold'],
    ['requirement', 'New requirements', 'orders', 'yard/requirements/orders.yaml', 'requirements:'],
  ])('of kind %s is right to begin with', async (kind, title, name, path, begins) => {
    const { shown, router } = await open(kind)
    expect(text()).toContain(title)
    expect(button('Create').disabled).toBe(true)
    await type('[aria-label=Name]', ` ${name} `)
    await press('Create')
    expect(written()?.path).toBe(path)
    expect(written()?.text).toContain(begins)
    expect(shown.emitted('made')).toHaveLength(1)
    await vi.waitFor(() =>
      expect(router.currentRoute.value.path).toBe(
        kind === 'object' ? `/model/${name}` : `/packages/file/${path}`,
      ),
    )
  })

  it('that extends is about an object of another package', async () => {
    const { shown } = await open('extension')
    expect(shown.findComponent(Select).props('options')).toEqual([
      { value: 'Owner', label: 'Owner (people)' },
    ])
    shown.findComponent(Select).vm.$emit('change', 'Owner')
    await shown.vm.$nextTick()
    await press('Create')
    expect(written()).toMatchObject({ path: 'yard/extensions/owner.yaml' })
    expect(written()?.text).toContain('extend: Owner')
  })

  it('cannot extend where there is nothing to', async () => {
    service.answers('GET /manage/v1/model', { objects: [] })
    await open('extension')
    expect(text()).toContain('There is no object in another package.')
    expect(button('Create').disabled).toBe(true)
  })

  it.each([
    ['object', 'boat trailer', 'begins with a capital letter'],
    ['service', 'OrderDesk', 'small letters, digits and hyphens'],
    ['object', 'Oar', 'There is a file yard/objects/oar.yaml already.'],
  ])('of kind %s is not called %s', async (kind, name, said) => {
    await open(kind)
    await type('[aria-label=Name]', name)
    await press('Create')
    expect(text()).toContain(said)
    expect(service.changes()).toEqual([])
  })

  it('stays open when it could not be kept', async () => {
    service.refuses('PUT /manage/v1/draft/file', 'yard is sealed.')
    const { shown } = await open('object')
    await type('[aria-label=Name]', 'Boat')
    await press('Create')
    expect(text()).toContain('yard is sealed.')
    expect(shown.emitted('made')).toBeUndefined()
  })
})
