import { zodResolver } from '@hookform/resolvers/zod'
import type { ReactNode } from 'react'
import { FormProvider, useController, useForm, type DefaultValues, type FieldValues, type Path, type Resolver } from 'react-hook-form'
import type { z } from 'zod'
import { Button } from './button'
import { Dialog } from './dialog'
import { Choice, Select, TextField } from './field'
import { Notice } from './panel'

interface ShellProps {
  title: string
  note?: string
  /** What the button says. */
  act: string
  isReady: boolean
  isBusy: boolean
  error?: Error | null
  onSend: () => void
  onClose: () => void
  children: ReactNode
}

/** A dialog that writes something: its fields, what went wrong, and one button that Enter presses too. */
export function FormDialog({ title, note, act, isReady, isBusy, error, onSend, onClose, children }: ShellProps) {
  return (
    <Dialog title={title} open onClose={onClose} {...(note ? { note } : {})}>
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (isReady && !isBusy) onSend()
        }}
      >
        {children}
        {error && (
          <Notice tone="danger" title="Not written" role="alert">
            {error.message}
          </Notice>
        )}
        <Button kind="act" type="submit" disabled={!isReady || isBusy}>
          {isBusy ? 'Writing…' : act}
        </Button>
      </form>
    </Dialog>
  )
}

interface FieldsProps<In extends FieldValues, Out> extends Omit<ShellProps, 'isReady' | 'onSend'> {
  /** What may be typed, and what comes of it. */
  schema: z.ZodType<Out, In>
  start: DefaultValues<In>
  onSend: (said: Out) => void
}

/** A form dialog whose fields are known by a schema: bounds, errors and what is sent stand there once. */
export function FieldsDialog<In extends FieldValues, Out>({ schema, start, onSend, children, ...shell }: FieldsProps<In, Out>) {
  const form = useForm<In, unknown, Out>({ resolver: zodResolver(schema) as unknown as Resolver<In, unknown, Out>, defaultValues: start, mode: 'onChange' })
  return (
    <FormProvider {...form}>
      <FormDialog {...shell} isReady={form.formState.isValid} onSend={() => void form.handleSubmit(onSend)()}>
        {children}
      </FormDialog>
    </FormProvider>
  )
}

interface Named {
  name: string
  label: string
}

const useField = (name: string) => {
  const { field, fieldState } = useController({ name: name as Path<FieldValues> })
  return { value: (field.value ?? '') as string, onChange: field.onChange as (value: string) => void, error: fieldState.isDirty ? fieldState.error?.message : undefined }
}

export function TextInput({ name, ...rest }: Named & { hint?: string; type?: 'date'; inputMode?: 'numeric' | 'decimal'; maxLength?: number | undefined }) {
  const { value, onChange, error } = useField(name)
  return <TextField {...rest} value={value} error={error} onChange={(e) => onChange(e.target.value)} />
}

export function ChoiceInput({ name, ...rest }: Named & { choices: readonly { id: string; label: string }[]; inline?: boolean }) {
  const { value, onChange } = useField(name)
  return <Choice {...rest} value={value} onChange={onChange} />
}

export function SelectInput({ name, ...rest }: Named & { choices: readonly { id: string; label: string }[] }) {
  const { value, onChange } = useField(name)
  return <Select {...rest} value={value} onChange={onChange} />
}
