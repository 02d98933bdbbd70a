/** What to know or to look at, one thing a line. */
export function Looks({ texts }: { texts: readonly string[] }) {
  if (texts.length === 0) return null
  return (
    <ul className="mt-1.5 list-disc space-y-0.5 pl-5 text-[1.1rem]">
      {texts.map((t) => (
        <li key={t} className="max-w-[70ch]">
          {t}
        </li>
      ))}
    </ul>
  )
}
