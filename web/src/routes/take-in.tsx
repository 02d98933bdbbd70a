import { useNavigate } from 'react-router'
import { BeginSheet } from '@/features/drives/begin-sheet'
import { Identify } from '@/features/drives/identify'
import { TakeInForm } from '@/features/intake/take-in-form'

export function TakeIn() {
  const navigate = useNavigate()
  return (
    <TakeInForm
      onOpen={(tag) => void navigate(`/bench/${tag}`)}
      identify={(onPick) => <Identify onPick={onPick} />}
      begin={(onMade, onClose) => <BeginSheet onMade={(sheet) => onMade(sheet.id)} onClose={onClose} />}
    />
  )
}
