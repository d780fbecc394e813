/** Something the palette can go to. */
export interface Entry {
  kind: string
  label: string
  to: string
}

const MOST = 12

/** Entries that hold every word, those that begin with the text first. */
export function matching(entries: Entry[], text: string): Entry[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  const whole = text.trim().toLowerCase()
  return entries
    .filter((entry) => words.every((word) => `${entry.kind} ${entry.label}`.toLowerCase().includes(word)))
    .sort((a, b) => rank(a, whole) - rank(b, whole))
    .slice(0, MOST)
}

function rank(entry: Entry, whole: string): number {
  const label = entry.label.toLowerCase()
  if (label === whole) return 0
  return label.startsWith(whole) ? 1 : 2
}
