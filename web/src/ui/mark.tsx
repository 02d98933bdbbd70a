/** Our mark: a disc on its spindle. */
export function Mark() {
  return (
    <svg viewBox="0 0 28 28" className="size-7" aria-hidden="true">
      <ellipse cx="14" cy="20.5" rx="11" ry="3.8" fill="none" stroke="currentColor" strokeWidth="1.8" />
      <ellipse cx="14" cy="15" rx="11" ry="3.8" fill="#d9732f" />
      <path d="M14 4.5v10.5" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
    </svg>
  )
}
