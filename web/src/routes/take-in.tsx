import { useNavigate } from 'react-router'
import { Identify } from '@/features/drives/identify'
import { TakeInForm } from '@/features/intake/take-in-form'

export function TakeIn() {
  const navigate = useNavigate()
  return <TakeInForm onTaken={(tag) => void navigate(`/bench/${tag}`)} identify={(onPick) => <Identify onPick={(sheetId) => onPick(sheetId)} />} />
}
