/** XML with a line for each element and its depth as space in front; text stays where it is. */
export function indented(xml: string): string {
  let depth = 0
  const lines = xml
    .replace(/>\s*</g, '>\n<')
    .split('\n')
    .map((line) => {
      if (line.startsWith('</')) depth--
      const shown = '  '.repeat(Math.max(depth, 0)) + line
      const opens = line.startsWith('<') && !/^<[/?!]/.test(line)
      if (opens && !line.endsWith('/>') && !line.includes('</')) depth++
      return shown
    })
  return lines.join('\n').trim()
}
