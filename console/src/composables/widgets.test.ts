import { afterEach, describe, expect, it } from 'vitest'
import { mend } from './widgets'

const select = (inside: string, attributes = '') => `<div class="ant-select ${attributes}>${inside}</div>`
const INPUT =
  '<input class="ant-select-selection-search-input" id="s1" aria-owns="s1_list" aria-activedescendant="s1_0">'

describe('widgets of the library', () => {
  afterEach(() => {
    document.body.innerHTML = ''
  })
  const input = () => document.querySelector('input')!

  it('say what they are for and whether they are open', () => {
    document.body.innerHTML = select(INPUT, 'ant-select-open" aria-label="Object"')
    mend(document)
    expect(input().getAttribute('aria-label')).toBe('Object')
    expect(input().getAttribute('aria-expanded')).toBe('true')
  })

  it('are named by the label that belongs to them', () => {
    document.body.innerHTML = `<label for="f-state"> State </label>${select(INPUT, '" id="f-state"')}`
    mend(document)
    expect(input().getAttribute('aria-label')).toBe('State')
    expect(input().getAttribute('aria-expanded')).toBe('false')
  })

  it('point to nothing that is not there', () => {
    document.body.innerHTML = `${select(INPUT, '"')}<div id="s1_list"></div>`
    mend(document)
    expect(input().getAttribute('aria-owns')).toBe('s1_list')
    expect(input().hasAttribute('aria-activedescendant')).toBe(false)
  })

  it('have checkboxes that are half ticked as browsers know them', () => {
    document.body.innerHTML = '<input type="checkbox" aria-checked="mixed">'
    mend(document)
    expect(input().indeterminate).toBe(true)
    expect(input().hasAttribute('aria-checked')).toBe(false)
  })
})
