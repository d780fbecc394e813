/** The UTF-16 offset of a line and column, which count from 1, columns in code points. */
export function offsetOf(text: string, line: number, column: number): number {
  let start = 0
  for (let at = 1; at < line; at++) {
    const next = text.indexOf('\n', start)
    if (next < 0) return text.length
    start = next + 1
  }
  const end = text.indexOf('\n', start)
  const content = text.slice(start, end < 0 ? text.length : end)
  return start + [...content].slice(0, column - 1).join('').length
}
