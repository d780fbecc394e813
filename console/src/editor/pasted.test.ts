import { describe, expect, it } from 'vitest'
import { fieldsOf, nameFor } from './pasted'

describe('fields that are pasted', () => {
  it('are names, labels, or columns out of a spreadsheet', () => {
    expect(fieldsOf('code\nname')).toEqual([
      { name: 'code', type: 'text' },
      { name: 'name', type: 'text' },
    ])
    expect(fieldsOf('Date of arrival\tDate\r\nNet amount;money\n\nGrößte Länge\tnumber(9)')).toEqual([
      { name: 'dateOfArrival', type: 'date' },
      { name: 'netAmount', type: 'amount' },
      { name: 'grossteLange', label: 'Größte Länge', type: 'decimal' },
    ])
    expect(fieldsOf('Remark\tvarchar(400)')).toEqual([{ name: 'remark', type: 'text', length: 400 }])
  })

  it('are none where nothing is said', () => {
    expect(fieldsOf('\n  \n---\n123\n')).toEqual([])
    expect(fieldsOf('x\n'.repeat(1000))).toHaveLength(200)
  })

  it('always get a name that can be one', () => {
    expect(nameFor('2nd berth')).toBe('ndBerth')
    expect(nameFor('42')).toBe('field')
    expect(nameFor('Ünnamed')).toBe('unnamed')
  })
})
