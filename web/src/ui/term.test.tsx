import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import { entryOf, GLOSSARY } from '@/lib/glossary'
import { Term, WORDS } from './term'

test('every row of the glossary is an entry, and each of its words finds it', () => {
  expect(GLOSSARY.length).toBeGreaterThan(40)
  expect(['Key carrier', 'pairing', 'deciban', 'not on the list'].map((w) => entryOf(w)?.words)).toEqual(['pairing, key carrier', 'pairing, key carrier', 'deciban (dB)', 'leak, "not on the list"'])
  expect(entryOf('word')).toBeUndefined()
})

test.each(WORDS)('the glossary has “%s”', (word) => expect(entryOf(word)).toBeDefined())

test('a word says what it means where it stands, and closes by Escape', async () => {
  render(<Term word="level" says="Levels" />)
  await userEvent.click(screen.getByRole('button', { name: 'Levels: what is that?' }))
  expect(await screen.findByRole('dialog')).toHaveTextContent('level: one kind of sub-assembly')
  await userEvent.keyboard('{Escape}')
  await waitFor(() => expect(screen.queryByRole('dialog')).not.toBeInTheDocument())
  expect(screen.getByRole('button')).toHaveFocus()
})
