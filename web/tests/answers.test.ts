import { describe, expect, it } from 'vitest'
import { useHistory } from '@/shared/ui/useHistory'
import { answered, onTop, unanswered, type Draft } from '@/desks/fitted/answers'
import { toggled } from '@/shared/ui/kit/factField'

const empty: Draft = { name: 'Kiln room', facts: {} }

describe('answers', () => {
  it('record their source, and change nothing when nothing is new', () => {
    const once = answered(empty, 'changeover', 'B', 'diagram')
    expect(once.facts.changeover).toEqual({ value: 'B', provenance: { source: 'diagram' } })
    expect(answered(once, 'changeover', 'B', 'diagram')).toBe(once)
    expect(answered(once, 'changeover', 'B', 'measured')).not.toBe(once)
    expect(empty.facts).toEqual({})
  })

  it('can be left open again', () => {
    expect(unanswered(answered(empty, 'changeover', 'B', 'told'), 'changeover')).toEqual(empty)
  })

  it('keep a list in the order in which it was tapped', () => {
    expect(['HPS', 'LPS', 'HPS', 'DTS'].reduce(toggled, [] as string[])).toEqual(['LPS', 'DTS'])
  })
})

describe('history', () => {
  it('walks back and forth, and forgets what was undone once something new is set', () => {
    const history = useHistory('a')
    for (const value of ['b', 'c', 'c']) history.set(value)
    history.undo()
    history.undo()
    history.undo()
    expect([history.current.value, history.canUndo.value, history.canRedo.value]).toEqual(['a', false, true])
    history.redo()
    history.set('d')
    history.redo()
    expect([history.current.value, history.canRedo.value]).toEqual(['d', false])
    history.undo()
    expect(history.current.value).toBe('b')
    history.restart('z')
    expect([history.current.value, history.canUndo.value]).toEqual(['z', false])
  })

  it('keeps what was answered while a draft was on its way, on top of what came back', () => {
    const fact = (value: string) => ({ value, provenance: { source: 'measured' } })
    const sent: Draft = { name: 'Roof', facts: { a: fact('1'), b: fact('1'), c: fact('1') } }
    const now: Draft = { name: 'Roof', facts: { a: fact('2'), c: fact('1') } }
    const back: Draft = { name: 'Roof unit', facts: { ...sent.facts, theirs: fact('9') } }
    expect(onTop(now, sent, back)).toEqual({
      name: 'Roof unit',
      facts: { a: fact('2'), c: fact('1'), theirs: fact('9') },
    })
    expect(onTop(sent, sent, back)).toEqual(back)
  })
})
