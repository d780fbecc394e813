import { computed, shallowRef } from 'vue'
import { keepFile } from '@/api/draft'
import { inTurn } from './inTurn'

/** One change of a draft file; without a text there was no such file. */
interface Entry {
  path: string
  before: string
  after: string
  at: number
}

/** Changes that follow each other this closely in one file are undone as one. */
const TOGETHER = 800
const MOST = 200

/** Oldest first. */
const done = shallowRef<Entry[]>([])
/** Newest first: the last is done again first. */
const undone = shallowRef<Entry[]>([])
const oldestFirst = (one: Entry, other: Entry) => one.at - other.at
const newestFirst = (one: Entry, other: Entry) => other.at - one.at

/** The pages that have a file open: each shows and keeps the text it is given. */
const holders = new Map<string, (text: string) => Promise<void>>()

/** What was changed in the draft since the console was opened, to be taken back and done again. */
export function useJournal() {
  function note(path: string, before: string, after: string, now = Date.now()) {
    undone.value = []
    const last = done.value.at(-1)
    if (last && last.path === path && last.after === before && now - last.at < TOGETHER) {
      last.after = after
      last.at = now
      return
    }
    done.value = [...done.value.slice(1 - MOST), { path, before, after, at: now }]
  }

  /** Is done at once, as if it was typed: what is changed next stands on top of it. */
  async function undo() {
    const entry = done.value.at(-1)
    if (!entry) return
    done.value = without(done.value, entry)
    undone.value = [...undone.value, entry]
    try {
      await put(entry.path, entry.before, entry.after)
    } catch (refused) {
      undone.value = without(undone.value, entry)
      done.value = [...done.value, entry].sort(oldestFirst)
      throw refused
    }
  }

  async function redo() {
    const entry = undone.value.at(-1)
    if (!entry) return
    undone.value = without(undone.value, entry)
    done.value = [...done.value, entry]
    try {
      await put(entry.path, entry.after, entry.before)
    } catch (refused) {
      done.value = without(done.value, entry)
      undone.value = [...undone.value, entry].sort(newestFirst)
      throw refused
    }
  }

  /** A file that no page has open is refused when somebody else changed it meanwhile. */
  async function put(path: string, text: string, instead: string) {
    const holder = holders.get(path)
    if (holder) await holder(text)
    else await inTurn(() => keepFile(path, text, instead))
  }

  /** Makes a page the one that has the file open; the answer ends that. */
  function hold(path: string, show: (text: string) => Promise<void>) {
    holders.set(path, show)
    return () => {
      if (holders.get(path) === show) holders.delete(path)
    }
  }

  return {
    note,
    undo,
    redo,
    hold,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    nextUndo: computed(() => done.value.at(-1)?.path),
    nextRedo: computed(() => undone.value.at(-1)?.path),
  }
}

const without = (entries: Entry[], entry: Entry) => entries.filter((one) => one !== entry)

/** Forgets everything, as when somebody else signs in. */
export function forgetJournal() {
  done.value = []
  undone.value = []
}
