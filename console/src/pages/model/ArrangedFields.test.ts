import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import ArrangedFields from './ArrangedFields.vue'

describe('fields in an order', () => {
  const FIELDS = ['a', 'b', 'c'].map((name) => ({ name, label: name.toUpperCase() }))
  const list = (more: object = {}) =>
    mount(ArrangedFields, {
      props: { fields: FIELDS, readOnly: false, empty: 'None yet.', label: 'Form', ...more },
      attachTo: document.body,
    })

  it('are dragged before one, or behind all', async () => {
    const shown = list()
    await shown.find('[data-field=c]').trigger('dragstart')
    await shown.find('[data-field=a]').trigger('drop')
    await shown.find('[data-field=a]').trigger('dragstart')
    await shown.find('ul').trigger('drop')
    expect(shown.emitted('dropped')).toEqual([
      ['c', 0],
      ['a', 3],
    ])
  })

  it('take nothing that was not dragged', async () => {
    const shown = list()
    await shown.find('ul').trigger('drop')
    expect(shown.emitted('dropped')).toBeUndefined()
  })

  it('are shifted with Alt and the arrows, and with nothing else', async () => {
    const shown = list()
    const b = shown.find('[data-field=b]')
    await b.trigger('keydown', { key: 'ArrowUp' })
    await b.trigger('keydown', { key: 'ArrowUp', altKey: true })
    await b.trigger('keydown', { key: 'ArrowDown', altKey: true })
    await b.trigger('keydown', { key: 'Enter', altKey: true })
    expect(shown.emitted('shifted')).toEqual([
      ['b', -1],
      ['b', 1],
    ])
  })

  it('say that there are none', () => {
    expect(list({ fields: [] }).text()).toBe('None yet.')
    expect(list({ readOnly: true }).find('[data-field=a]').attributes('draggable')).toBe('false')
  })
})
