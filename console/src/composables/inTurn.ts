let last: Promise<unknown> = Promise.resolve()

/** Sends changes of the draft one after the other, each when the one before has been answered. */
export function inTurn<T>(send: () => Promise<T>): Promise<T> {
  const mine = last.then(send, send)
  last = mine.catch(() => undefined)
  return mine
}
