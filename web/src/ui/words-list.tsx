import { GLOSSARY } from '@/lib/glossary'

/** The whole glossary. */
export function WordsList() {
  return (
    <dl className="space-y-1.5">
      {GLOSSARY.map((e) => (
        <div key={e.words}>
          <dt className="inline font-bold">{e.words}:</dt> <dd className="inline">{e.meaning}</dd>
        </div>
      ))}
    </dl>
  )
}
