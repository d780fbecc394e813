import type { Status } from '@/api/client'

type Latest = Status['latest'][number]

/** Changes of late, with those of one kind that follow each other told as one. */
export function grouped(latest: Latest[]): (Latest & { count: number })[] {
  const groups: (Latest & { count: number })[] = []
  for (const one of latest) {
    const last = groups.at(-1)
    const alike =
      last &&
      last.object === one.object &&
      last.operation === one.operation &&
      last.by === one.by &&
      last.via === one.via
    if (alike) last.count++
    else groups.push({ ...one, count: 1 })
  }
  return groups
}
