import { describe, expect, it } from 'vitest'
import { isStepFilled, quoted, STEPS } from './steps'

const step = (kind: string) => STEPS.find((one) => one.kind === kind)!

describe('a step out of a form', () => {
  it('is written as the language has it', () => {
    expect(step('set').text({ field: 'open', value: 'false' })).toBe('set open = false')
    expect(step('create').text({ object: 'Job', values: 'code: "a"\nsize: 3,', as: 'made' })).toBe(
      'create Job { code: "a", size: 3 } as made',
    )
    expect(step('require').text({ condition: 'a > 0', message: 'Say "why"', at: 'a' })).toBe(
      'require a > 0 else reject "Say \\"why\\"" at a',
    )
    expect(step('if').text({ condition: 'a', then: 'set b = 1\nset c = 2' })).toBe(
      'if a then\n  set b = 1\n  set c = 2\nend',
    )
    expect(step('transition').text({ step: 'close', of: 'invoice' })).toBe('transition close of invoice')
  })

  it('is inserted only when it has what it needs', () => {
    expect(isStepFilled(step('warn'), { message: ' ' })).toBe(false)
    expect(isStepFilled(step('warn'), { message: 'Mind' })).toBe(true)
  })

  it('puts text in quotes once', () => {
    expect(quoted('"so"')).toBe('"so"')
    expect(quoted('so')).toBe('"so"')
  })
})
