import { StreamLanguage, type StringStream } from '@codemirror/language'

const WORDS = new Set(
  (
    'and or not in between if then else for each return some every satisfies instance of function true false null ' +
    'let set create update save retire transition require reject warn note end at as by key find first where order take call emit about descending'
  ).split(' '),
)

/** What colour the next piece of an expression or of steps has. */
export function feelToken(stream: StringStream): string | null {
  if (stream.eatSpace()) return null
  if (stream.match('//')) {
    stream.skipToEnd()
    return 'comment'
  }
  if (stream.match(/^@?"(?:[^"\\]|\\.)*"?/)) return 'string'
  if (stream.match(/^\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/)) return 'number'
  const name = stream.match(/^[\p{L}_][\p{L}\p{N}_]*/u) as RegExpMatchArray | null
  if (name) {
    if (WORDS.has(name[0])) return 'keyword'
    return stream.match(/^\s*\(/, false) ? 'variableName.function' : 'variableName'
  }
  stream.next()
  return 'operator'
}

/** The language of conditions, formulas and steps, as far as colours go; all else is asked of the service. */
export const feel = StreamLanguage.define({
  token: feelToken,
  tokenTable: {},
  languageData: { commentTokens: { line: '//' } },
})

/** Messages are text with expressions in braces; only those are coloured. */
export const message = StreamLanguage.define<{ inside: boolean }>({
  startState: () => ({ inside: false }),
  token(stream, state) {
    if (state.inside && stream.peek() !== '}') return feelToken(stream)
    if (stream.match('{')) state.inside = true
    else if (stream.match('}')) state.inside = false
    else {
      stream.next()
      stream.eatWhile(/[^{}]/)
    }
    return null
  },
  tokenTable: {},
})

/** Code points before a UTF-16 place, as the service counts. */
export const toPoints = (text: string, at: number) => [...text.slice(0, at)].length

/** The UTF-16 place behind a number of code points, as the editor counts. */
export function fromPoints(text: string, points: number): number {
  let at = 0
  for (const one of text) {
    if (points-- <= 0) break
    at += one.length
  }
  return at
}
