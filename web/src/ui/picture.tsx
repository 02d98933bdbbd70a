import { useState } from 'react'
import { addressOf } from '@/lib/pictures'

interface Props {
  /** The hash of its content. */
  hash: string
  /** What it shows. */
  says: string
  className?: string
}

/** A picture that a sheet shows, by the hash of its content. A sheet from elsewhere may name one that this shop does not have. */
export function Picture({ hash, says, className = '' }: Props) {
  const [isMissing, setMissing] = useState(false)
  if (isMissing) return <span className="text-tiny text-quiet">The picture did not come with the sheet.</span>
  return <img src={addressOf(hash)} alt={says} className={`block rounded-md border border-line ${className}`} loading="lazy" onError={() => setMissing(true)} />
}
