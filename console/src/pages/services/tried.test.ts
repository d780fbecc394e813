import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiProblem } from '@/api/http'
import { callerToken } from './caller'
import { prettyAnswer, useTrial } from './tried'

vi.mock('./caller', () => ({ callerToken: vi.fn() }))
const token = vi.mocked(callerToken)
const called = vi.fn()

const answering = (status: number, text: string, headers: Record<string, string> = {}) =>
  called.mockResolvedValue({
    status,
    text: () => Promise.resolve(text),
    headers: new Headers(headers),
  })

describe('trying a call', () => {
  beforeEach(() => {
    vi.stubGlobal('fetch', called)
    called.mockReset()
    token.mockReset()
    token.mockResolvedValue(undefined as never)
    document.cookie = 'XSRF-TOKEN=abc'
  })
  afterEach(() => vi.unstubAllGlobals())

  it('goes with the session of the person and the token of the page', async () => {
    answering(200, '{"a":1}', { ETag: '"3"' })
    const trial = useTrial(prettyAnswer)

    await trial.send({ method: 'GET', path: '/api/desk/v1/stays/1' })

    const [path, sent] = called.mock.calls[0]
    expect(path).toBe('/api/desk/v1/stays/1')
    expect(sent).toMatchObject({ method: 'GET', credentials: 'same-origin', body: undefined })
    expect(sent.headers['X-XSRF-TOKEN']).toBe('abc')
    expect(sent.headers.Authorization).toBeUndefined()
    expect(trial.answer.value).toMatchObject({ status: 200, text: '{\n  "a": 1\n}', tag: '"3"' })
    expect(trial.busy.value).toBe(false)
  })

  it('goes as a client without the session', async () => {
    answering(204, '')
    token.mockResolvedValue('ey')
    const trial = useTrial(prettyAnswer)

    await trial.send({ method: 'DELETE', path: '/x', ifMatch: '"7"', type: 'text/xml', body: '<a/>' })

    const sent = called.mock.calls[0][1]
    expect(sent.credentials).toBe('omit')
    expect(sent.headers).toMatchObject({
      Authorization: 'Bearer ey',
      'If-Match': '"7"',
      'Content-Type': 'text/xml',
    })
    expect(sent.body).toBe('<a/>')
    expect(trial.answer.value?.tag).toBeUndefined()
  })

  it('says when nobody answers, and what keeps the client from being one', async () => {
    called.mockRejectedValue(new TypeError('Failed to fetch'))
    const trial = useTrial(prettyAnswer)
    await trial.send({ method: 'GET', path: '/x' })
    expect(trial.problem.value).toBe('The service does not answer.')
    expect(trial.busy.value).toBe(false)

    token.mockRejectedValue(new ApiProblem({ title: 'No', status: 403, detail: 'It is disabled.' } as never))
    await trial.send({ method: 'GET', path: '/x' })
    expect(trial.problem.value).toBe('It is disabled.')
    answering(200, 'plain')
    token.mockResolvedValue(undefined as never)
    await trial.send({ method: 'GET', path: '/x' })
    expect(trial.problem.value).toBe('')
    expect(trial.answer.value?.text).toBe('plain')
  })
})
