import { ClaimsRegister } from '@/features/record/claims'

export const TrackRecord = () => <ClaimsRegister />
