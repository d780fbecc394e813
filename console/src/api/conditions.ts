import { api, unwrap, type Schemas } from './client'

export type Condition = Schemas['ConditionView']
export type Operand = Schemas['OperandView']
export type Relation = NonNullable<Condition['relation']>
export type Quantity = NonNullable<Condition['quantity']>

/** The parts of a text, which mean the same; what cannot be taken apart is a text again. */
export const conditionParts = (text: string) =>
  unwrap(api.POST('/manage/v1/conditions/parts', { body: { text } }))

/** The text of parts that are finished. */
export const conditionText = async (parts: Condition) =>
  (await unwrap(api.POST('/manage/v1/conditions/text', { body: parts }))).text
