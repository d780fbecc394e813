import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils'
import { message, Popconfirm } from 'ant-design-vue'
import type { Component } from 'vue'
import { vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { ApiProblem } from '@/api/http'

/** What a page asked for. */
export interface Asked {
  method: string
  path: string
  body?: unknown
  params?: unknown
}

type Options = { body?: unknown; params?: unknown }
const answers = new Map<string, unknown>()
const asked: Asked[] = []

async function answer(method: string, path: string, options: Options = {}) {
  asked.push({ method, path, body: options.body, params: options.params })
  const found = answers.get(`${method} ${path}`)
  if (found instanceof Error) throw found
  return found
}

/**
 * The service as pages see it: what is said to be answered is, and what they ask is taken down. A
 * test puts it in the place of the client with `vi.mock('@/api/client', ...)`.
 */
export const service = {
  /** Answers a request, as in `answers('GET /manage/v1/clients', [])`, until something else is said. */
  answers: (request: string, body: unknown) => answers.set(request, body),
  /** Refuses it as the service does, with messages by field. */
  refuses: (request: string, detail: string, errors: Record<string, string> = {}) =>
    answers.set(
      request,
      new ApiProblem({
        title: '',
        status: 422,
        detail,
        errors: Object.entries(errors).map(([field, message]) => ({
          pointer: `/${field}`,
          code: '',
          message,
        })),
      }),
    ),
  /** What was asked for, reading left out. */
  changes: () => asked.filter((one) => one.method !== 'GET'),
  asked: () => asked,
  forget() {
    answers.clear()
    asked.length = 0
  },
}

/** What stands in the place of `@/api/client`. */
export const clientModule = () => ({
  api: Object.fromEntries(
    ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'].map((method) => [
      method,
      (path: string, options?: Options) => answer(method, path, options),
    ]),
  ),
  unwrap: (work: unknown) => work,
})

/** Shows a component in a page with everything it finds there; waits for what it asks first. */
export async function show(component: Component, props: Record<string, unknown> = {}, at = '/') {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:all(.*)*', component: { template: '<div />' } }],
  })
  await router.push(at)
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const shown = mount(component, {
    props,
    attachTo: document.body,
    global: { plugins: [router, [VueQueryPlugin, { queryClient: queries }]] },
  })
  await flushPromises()
  return { shown, router }
}

/** The button with some words, wherever on the page; dialogs stand beside what opened them. */
export function button(words: string): HTMLButtonElement {
  const all = [...document.querySelectorAll('button')].filter((one) =>
    one.textContent?.trim().includes(words),
  )
  const last = all.at(-1)
  if (!last) throw new Error(`There is no button "${words}".`)
  return last
}

/** Presses it and waits for what follows. */
export async function press(words: string) {
  button(words).click()
  await flushPromises()
}

/** Says yes to a question that stands beside a button, counted from 0. */
export async function confirm(shown: VueWrapper, place: number) {
  shown.findAllComponents(Popconfirm)[place]!.vm.$emit('confirm')
  await flushPromises()
}

/** What is said in passing when something went well, or did not. */
export const passing = () => ({
  good: vi.spyOn(message, 'success').mockReturnValue(undefined as never),
  bad: vi.spyOn(message, 'error').mockReturnValue(undefined as never),
})

/** Types into an input. */
export async function type(selector: string, text: string) {
  const input = document.querySelector<HTMLInputElement>(selector)
  if (!input) throw new Error(`There is no ${selector}.`)
  input.value = text
  input.dispatchEvent(new Event('input'))
  input.dispatchEvent(new Event('change'))
  await flushPromises()
}

/** Everything that can be read on the page. */
export const text = () => document.body.textContent ?? ''

/** Waits until a check holds; long, for a machine that is busy. */
export const soon = (check: () => unknown) => vi.waitFor(check, { timeout: 15_000 })
