import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { Form } from 'react-router'

/** What a form was refused for, if it was. */
export const Refused = ({ said }: { said: { message: string } | null | undefined }) =>
  said ? (
    <p className="notice" role="alert">
      {said.message}
    </p>
  ) : null

/**
 * Says what was taken away, with the way back. @param field what the way back sends beside its
 * intent
 */
export function WayBack({
  intent,
  field,
  act,
  children,
}: {
  intent: string
  field: readonly [name: string, value: string]
  act: string
  children: ReactNode
}) {
  return (
    <Form method="post" className="notice" role="status">
      <input type="hidden" name="intent" value={intent} />
      <input type="hidden" name={field[0]} value={field[1]} />
      {children} <Button type="submit">{act}</Button>
    </Form>
  )
}

/**
 * How far something is, and the way to stop it; without numbers where it cannot be told how far.
 */
export function Working({
  label,
  at,
  onStop,
}: {
  label: string
  at: { done: number; of: number } | null
  onStop: () => void
}) {
  return (
    <span role="status" className="working">
      <progress aria-label={label} {...(at ? { value: at.done, max: at.of } : {})} />{' '}
      <Button size="small" onClick={onStop}>
        Stop
      </Button>
    </span>
  )
}
