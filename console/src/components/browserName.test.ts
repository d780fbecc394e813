import { describe, expect, it } from 'vitest'
import { browserOf } from './browserName'

describe('the name of a browser', () => {
  it('is what people call it', () => {
    expect(
      browserOf(
        'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Safari/537.36',
      ),
    ).toBe('Chrome on Linux')
    expect(browserOf('Mozilla/5.0 (Windows NT 10.0; rv:140.0) Gecko/20100101 Firefox/140.0')).toBe(
      'Firefox on Windows',
    )
  })

  it('is what it says of itself when it is another, and something when it says nothing', () => {
    expect(browserOf('curl/8.5')).toBe('curl/8.5')
    expect(browserOf('')).toBe('Unknown browser')
  })
})
