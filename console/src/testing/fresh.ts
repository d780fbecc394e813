import { vi } from 'vitest'

// Files of tests share a process, since loading the components anew for each takes most of the time. What one of them put in
// the place of a module, of the clock or of the network, or left on the page, must not be there for the next.
vi.useRealTimers()
vi.restoreAllMocks()
vi.unstubAllGlobals()
vi.resetModules()
document.body.replaceChildren()
localStorage.clear()
sessionStorage.clear()

// There is no service behind these tests: whoever asks it forgot to say what it answers, and hears of it.
globalThis.fetch = (asked) => {
  const refused = new Error(`Nothing is said of ${asked instanceof Request ? asked.url : asked}`)
  void Promise.reject(refused)
  return Promise.reject(refused)
}
