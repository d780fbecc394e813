import { computed, ref } from 'vue'
import { keepFile } from '@/api/draft'

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

const done = ref<Entry[]>([])
const undone = ref<Entry[]>([])
/** The file that undo or redo changed last, for whoever has it open. */
const restored = ref<{ path: string; text: string; turn: number }>()

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

  async function undo() {
    const entry = done.value.at(-1)
    if (!entry) return
    await keepFile(entry.path, entry.before)
    done.value = done.value.slice(0, -1)
    undone.value = [...undone.value, entry]
    tell(entry.path, entry.before)
  }

  async function redo() {
    const entry = undone.value.at(-1)
    if (!entry) return
    await keepFile(entry.path, entry.after)
    undone.value = undone.value.slice(0, -1)
    done.value = [...done.value, entry]
    tell(entry.path, entry.after)
  }

  function tell(path: string, text: string) {
    restored.value = { path, text, turn: (restored.value?.turn ?? 0) + 1 }
  }

  return {
    note,
    undo,
    redo,
    restored,
    canUndo: computed(() => done.value.length > 0),
    canRedo: computed(() => undone.value.length > 0),
    nextUndo: computed(() => done.value.at(-1)?.path),
    nextRedo: computed(() => undone.value.at(-1)?.path),
  }
}

/** Forgets everything, as when somebody else signs in. */
export function forgetJournal() {
  done.value = []
  undone.value = []
}
