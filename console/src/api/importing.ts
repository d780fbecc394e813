import { call } from './http'
import type { Plain } from './records'

/** What came, or would come, of one record of a batch. */
export interface RowResult {
  status: 'created' | 'changed' | 'unchanged' | 'refused' | string
  problem?: { detail?: string; errors?: { pointer: string; code: string; message: string }[] }
}

/** Creates or changes records by key, each for itself; as a trial nothing is kept. */
export async function sendBatch(
  object: string,
  items: Record<string, Plain>[],
  trial: boolean,
): Promise<RowResult[]> {
  const answer = await call<{ results: RowResult[] }>(
    'POST',
    `/manage/v1/records/${encodeURIComponent(object)}/batch`,
    { items, trial },
  )
  return answer.results
}

/** Why a row is refused, in words. */
export function reasonOf(result: RowResult): string {
  const errors = result.problem?.errors?.map((one) => one.message) ?? []
  return errors.length ? errors.join(' ') : (result.problem?.detail ?? '')
}
