/** Stands over every practice screen, so that nobody takes its unit for a customer's. */
export function PracticeBand() {
  return (
    <div
      role="note"
      className="border-b border-ink px-4 py-2 font-bold"
      style={{ background: 'repeating-linear-gradient(135deg, var(--brass-soft) 0 18px, var(--paper) 18px 36px)' }}
    >
      <span className="rounded bg-paper px-2 py-0.5">Practice: no customer’s unit. Nothing here is counted in shelf, day or record.</span>
    </div>
  )
}
