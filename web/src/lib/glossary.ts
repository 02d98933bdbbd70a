import text from '../../../docs/glossary.md?raw'

/** A word of the trade or of this house, with what it means. */
export interface Entry {
  words: string
  meaning: string
}

const plain = (words: string): string => words.replace(/[“”"]|\(.*?\)/g, '').trim().toLowerCase()

/** Every entry of the glossary, in its order: the one file that the documents have. */
export const GLOSSARY: readonly Entry[] = text
  .split('\n')
  .map((line) => /^\| (.+?) \| (.+) \|$/.exec(line))
  .flatMap((m) => (m?.[1] && m[2] && m[1] !== 'word' ? [{ words: m[1], meaning: m[2] }] : []))

const BY_WORD = new Map(GLOSSARY.flatMap((e) => e.words.split(',').map((w) => [plain(w), e] as const)))

/** What a word means; nothing for a word that the glossary does not have. */
export const entryOf = (word: string): Entry | undefined => BY_WORD.get(plain(word))
