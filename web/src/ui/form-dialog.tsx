import { zodResolver } from '@hookform/resolvers/zod'
import { useId, type ReactNode } from 'react'
import { FormProvider, useController, useForm, type DefaultValues, type FieldValues, type Path, type Resolver } from 'react-hook-form'
import type * as z from 'zod/mini'
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
  schema: z.ZodMiniType<Out, In>
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

type TextProps = Named & { hint?: string | undefined; type?: 'date'; inputMode?: 'numeric' | 'decimal'; maxLength?: number | undefined; list?: readonly string[] }

/** A line of text; `list` are words that are known, offered as somebody types. */
export function TextInput({ name, list, ...rest }: TextProps) {
  const id = useId()
  const { value, onChange, error } = useField(name)
  return (
    <>
      <TextField {...rest} {...(list ? { list: id } : {})} value={value} error={error} onChange={(e) => onChange(e.target.value)} />
      {list && (
        <datalist id={id}>
          {list.map((word) => (
            <option key={word} value={word} />
          ))}
        </datalist>
      )}
    </>
  )
}

export function ChoiceInput({ name, ...rest }: Named & { choices: readonly { id: string; label: string }[]; inline?: boolean }) {
  const { value, onChange } = useField(name)
  return <Choice {...rest} value={value} onChange={onChange} />
}

/** Several of a few. */
export function ChecksInput({ name, label, choices }: Named & { choices: readonly { id: string; label: string }[] }) {
  const { field } = useController({ name: name as Path<FieldValues> })
  const picked = (field.value ?? []) as string[]
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">{label}</legend>
      <div className="flex flex-wrap gap-x-4">
        {choices.map((c) => (
          <label key={c.id} className="inline-flex min-h-11 items-center gap-2">
            <input type="checkbox" className="size-6" checked={picked.includes(c.id)} onChange={(e) => field.onChange(e.target.checked ? [...picked, c.id] : picked.filter((x) => x !== c.id))} />
            {c.label}
          </label>
        ))}
      </div>
    </fieldset>
  )
}

export function SelectInput({ name, ...rest }: Named & { choices: readonly { id: string; label: string }[]; empty?: string }) {
  const { value, onChange } = useField(name)
  return <Select {...rest} value={value} onChange={onChange} />
}
