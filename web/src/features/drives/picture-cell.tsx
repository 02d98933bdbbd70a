import { useMutation } from '@tanstack/react-query'
import { client } from '@/api/client'
import { asForm } from '@/api/once'
import { dataOf } from '@/api/problem'
import { Button } from '@/ui/button'
import { FileButton } from '@/ui/file-button'
import { Picture } from '@/ui/picture'

interface Props {
  label: string
  value: string
  isRefused: boolean
  onChange: (value: string | null) => void
}

/** How a step looks: a picture from a file, made anew and kept by the shop; the cell holds its name. */
export function PictureCell({ label, value, isRefused, onChange }: Props) {
  const sending = useMutation({
    mutationFn: async (file: File) => {
      const body = new FormData()
      body.set('file', file, file.name)
      return dataOf(client.POST('/api/photos', { body: body as never, ...asForm }))
    },
    onSuccess: ({ hash }) => onChange(hash),
  })
  return (
    <div role="group" aria-label={label} aria-invalid={isRefused || undefined} className="flex min-w-72 flex-wrap items-center gap-2">
      {value && <Picture key={value} hash={value} says={label} className="w-24" />}
      <FileButton label={`${label}, from a file`} accept="image/jpeg,image/png,image/webp,image/heic,image/heif" disabled={sending.isPending} onFile={(file) => sending.mutate(file)}>
        {sending.isPending ? 'Sending…' : value ? 'Another' : 'From a file'}
      </FileButton>
      {value && (
        <Button kind="quiet" onClick={() => onChange(null)} aria-label={`${label}: none`}>
          None
        </Button>
      )}
      {sending.error && (
        <span role="alert" className="text-tiny text-danger">
          {sending.error.message}
        </span>
      )}
    </div>
  )
}
