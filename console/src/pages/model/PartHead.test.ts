import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import PartHead from './PartHead.vue'

describe('the head of line items', () => {
  const TEXT =
    'object: Bill\nfields: { code: { type: text } }\nparts:\n  lines:\n    label: Lines\n    fields: {}\n'
  const head = (more: object = {}) =>
    mount(PartHead, {
      props: { text: TEXT, part: 'lines', released: [], readOnly: false, languages: ['en', 'de'], ...more },
    })

  it('has a label in each language', () => {
    const shown = head()
    expect(shown.find<HTMLInputElement>('[aria-label="Label of the line items"]').element.value).toBe('Lines')
    expect(shown.find('[aria-label="Label of the line items in de"]').attributes('placeholder')).toBe('Lines')
  })

  it('takes a name that can be one', async () => {
    const shown = head()
    const name = shown.find('[aria-label="Name of the line items"]')
    await name.setValue('Not a name')
    expect(shown.emitted('renamed')).toBeUndefined()
    await name.setValue('items')
    await name.trigger('change')
    expect(shown.emitted('renamed')).toEqual([['items']])
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('items:')
  })

  it('keeps what was released by its name before', async () => {
    const shown = head({ released: ['lines'] })
    await shown.find('[aria-label="Name of the line items"]').setValue('items')
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('was: lines')
  })

  it('says another language beside the main one', async () => {
    const shown = head()
    await shown.find('[aria-label="Label of the line items in de"]').setValue('Zeilen')
    expect(shown.emitted('update')?.at(-1)?.[0]).toContain('de: Zeilen')
  })

  it('of a delivered package cannot go', () => {
    expect(head({ readOnly: true }).text()).not.toContain('Remove')
  })
})
