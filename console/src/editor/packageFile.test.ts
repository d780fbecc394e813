import { expect, it } from 'vitest'
import { addDependency } from './packageFile'

it('makes a package depend on another once, and keeps what is said', () => {
  const text = 'package: mine # ours\nversion: 1\n'
  const once = addDependency(text, 'harbour')
  expect(once).toBe('package: mine # ours\nversion: 1\ndepends: [harbour]\n')
  expect(addDependency(once, 'harbour')).toBe(once)
  expect(addDependency(once, 'yard')).toContain('[harbour, yard]')
})
