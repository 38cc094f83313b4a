import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { Form, Link, useFetcher } from 'react-router'
import type { SetTune } from '../../../db/sets'
import { useOnChange } from '../../services/words/stable'

type SetOrderRow = SetTune & { versions: string[]; own: { tempo: number } | null }

/**
 * The tunes of a set in their order: dragged by the handle, or moved by its keys (Space, then
 * arrows).
 */
export function SetOrder({ tunes }: { tunes: readonly SetOrderRow[] }) {
  // Sent beside one another: none takes the place of another that is still on its way.
  const mover = useFetcher()
  // What was dropped stays there while the server is told.
  const [order, setOrder] = useState(tunes)
  useOnChange(tunes, setOrder)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const placeOf = (id: unknown) => order.findIndex((one) => one.id === id)
  const titleOf = (id: unknown) => order[placeOf(id)]?.title ?? ''
  const moveTo = (id: string, to: number) => {
    const moved = order.find((one) => one.id === id)
    if (!moved || to < 0 || to >= order.length) return
    const others = order.filter((one) => one.id !== id)
    setOrder([...others.slice(0, to), moved, ...others.slice(to)])
    void mover.submit({ intent: 'move', row: id, to: String(to) }, { method: 'post' })
  }
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) moveTo(String(active.id), placeOf(over.id))
  }
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${titleOf(active.id)} is taken up.`,
    onDragOver: ({ active, over }) =>
      over ? `${titleOf(active.id)} is at place ${placeOf(over.id) + 1}.` : '',
    onDragEnd: ({ active, over }) =>
      over ? `${titleOf(active.id)} is put down at place ${placeOf(over.id) + 1}.` : '',
    onDragCancel: ({ active }) => `${titleOf(active.id)} is where it was.`,
  }
  return (
    <DndContext
      id="set-order"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{ announcements }}
    >
      <SortableContext items={order.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <ol className="set-order" aria-label="Order of the set">
          {order.map((one, place) => (
            <SetRow key={one.id} row={one} place={place} of={order.length} onMove={moveTo} />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  )
}

function SetRow({
  row,
  place,
  of,
  onMove,
}: {
  row: SetOrderRow
  place: number
  of: number
  onMove: (id: string, to: number) => void
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: row.id })
  const how = useFetcher<{ message: string } | null>()
  return (
    <li
      ref={setNodeRef}
      className={`set-row${isDragging ? ' dragged' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button
        type="button"
        className="set-handle"
        {...attributes}
        {...listeners}
        aria-label={`Move ${row.title}, place ${place + 1} of ${of}`}
      >
        {place + 1}
      </button>
      <span className="set-title">
        {row.deleted ? (
          <>
            {row.title} <span className="quiet">is not in the songbook any more</span>
          </>
        ) : (
          <Link to={`/tunes/${row.tuneId}/lines`}>{row.title}</Link>
        )}
      </span>
      <how.Form
        method="post"
        className="set-how"
        onBlur={(event) => {
          const form = event.currentTarget
          if (changedIn(form, row)) void how.submit(form)
        }}
      >
        <input type="hidden" name="intent" value="change" />
        <input type="hidden" name="row" value={row.id} />
        <Field label="Key" name="key" value={row.key ?? ''} placeholder="own" size={4} of={row.title} />
        <Field
          label="Tempo"
          name="tempo"
          value={row.tempo === null ? '' : String(row.tempo)}
          placeholder={row.own ? String(row.own.tempo) : 'own'}
          size={4}
          of={row.title}
        />
        {(row.versions.length > 0 || row.version) && (
          <label>
            Version{' '}
            <select
              name="version"
              defaultValue={row.version ?? ''}
              key={row.version}
              aria-label={`Version of ${row.title}`}
            >
              <option value="">as worked on</option>
              {[...new Set([...row.versions, ...(row.version ? [row.version] : [])])].map((name) => (
                <option key={name} value={name}>
                  {row.versions.includes(name) ? name : `${name} (not kept any more)`}
                </option>
              ))}
            </select>
          </label>
        )}
        <Field label="Note" name="note" value={row.note} placeholder="" size={18} of={row.title} />
        <button type="submit" className="visually-hidden">
          Keep
        </button>
      </how.Form>
      {how.data && (
        <p className="fault" role="alert">
          {how.data.message}
        </p>
      )}
      <span className="set-acts">
        <Button
          size="small"
          disabled={place === 0}
          onClick={() => onMove(row.id, place - 1)}
          aria-label={`${row.title} earlier`}
        >
          Earlier
        </Button>
        <Button
          size="small"
          disabled={place === of - 1}
          onClick={() => onMove(row.id, place + 1)}
          aria-label={`${row.title} later`}
        >
          Later
        </Button>
        <Form method="post" preventScrollReset>
          <input type="hidden" name="row" value={row.id} />
          <Button
            size="small"
            type="submit"
            name="intent"
            value="take-out"
            aria-label={`Take ${row.title} out`}
          >
            Take out
          </Button>
        </Form>
      </span>
    </li>
  )
}

/** A field was changed since the row was read. */
function changedIn(form: HTMLFormElement, { key, tempo, version, note }: SetOrderRow): boolean {
  const said = Object.fromEntries(new FormData(form))
  const was = { key: key ?? '', tempo: tempo === null ? '' : String(tempo), version: version ?? '', note }
  return Object.entries(was).some(([name, value]) => name in said && said[name] !== value)
}

function Field({
  label,
  name,
  value,
  placeholder,
  size,
  of,
}: {
  label: string
  name: string
  value: string
  placeholder: string
  size: number
  of: string
}) {
  return (
    <label>
      {label}{' '}
      <input
        type="text"
        name={name}
        defaultValue={value}
        key={value}
        placeholder={placeholder}
        size={size}
        aria-label={`${label} of ${of}`}
        autoComplete="off"
      />
    </label>
  )
}
