import { useNavigate } from 'react-router'
import { TakeInForm } from '@/features/intake/take-in-form'

export function TakeIn() {
  const navigate = useNavigate()
  return <TakeInForm onTaken={(tag) => void navigate(`/bench/${tag}`)} />
}
