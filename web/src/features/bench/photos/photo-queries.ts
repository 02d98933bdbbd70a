import { useIsSending, useSendFile } from '@/api/send-file'
import type { Follows } from '@/api/waiting-files'

export const MOST_MEGABYTES = 12

/** Whether a picture is on its way: what would leave it behind waits. */
export const useIsSendingPhoto = (): boolean => useIsSending('/api/photos')

export const useSendPhoto = (onKept: (hash: string, follows: Follows) => void) => useSendFile('/api/photos', 'photo.jpg', onKept)
