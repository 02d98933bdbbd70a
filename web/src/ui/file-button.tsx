import { useRef, type ReactNode } from 'react'
import { Button } from './button'

interface Props {
  /** What the file is, for whoever cannot see the button. */
  label: string
  accept: string
  onFile: (file: File) => void
  disabled?: boolean
  kind?: 'plain' | 'quiet'
  children: ReactNode
}

/** A button that takes a file; the same file can be taken twice. */
export function FileButton({ label, accept, onFile, disabled = false, kind = 'quiet', children }: Props) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <>
      <input
        ref={field}
        type="file"
        accept={accept}
        className="sr-only"
        aria-label={label}
        onClick={(e) => (e.currentTarget.value = '')}
        onChange={(e) => e.target.files?.[0] && onFile(e.target.files[0])}
      />
      <Button kind={kind} disabled={disabled} onClick={() => field.current?.click()}>
        {children}
      </Button>
    </>
  )
}
