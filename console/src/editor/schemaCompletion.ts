import { autocompletion, type CompletionContext } from '@codemirror/autocomplete'
import { placeAt, proposalsAt, type Schema } from './schemaPlace'

/** Completion in a definition file by the schema of its kind; `schema` may come later than the editor. */
export function schemaCompletion(schema: () => Schema | undefined) {
  return autocompletion({
    override: [
      (context: CompletionContext) => {
        const known = schema()
        if (!known) return null
        const place = placeAt(context.state.doc.toString(), context.pos)
        const word = /[\w-]*$/.exec(place.typed)![0]
        if (!context.explicit && word === '' && place.at === 'key') return null
        const options = proposalsAt(known, place)
        return options.length
          ? {
              from: context.pos - word.length,
              options: options.map((one) => ({
                label: one.label,
                apply: one.insert,
                info: one.detail,
                type: place.at === 'key' ? 'property' : 'enum',
              })),
              validFor: /^[\w-]*$/,
            }
          : null
      },
    ],
  })
}
