import Button from '@mui/material/Button'
import type { ReactNode } from 'react'
import { Form, useSubmit } from 'react-router'
import {
  BARS_A_LINE_RANGE,
  PAPERS,
  SHEET_PARTS,
  TEMPLATE_NAMES,
  TEMPLATES,
  type SheetLayout,
  type SheetSwitch,
} from '../../../core/sheet/sheetLayout'
import type { KeptLayout } from '../../../db/layouts'

interface Props {
  layout: SheetLayout
  /** The layout it begins from: a template's name, or the id of one that is kept. */
  from: string
  kept: readonly KeptLayout[]
  /** Versions of the tune, and the one that is shown. */
  versions: readonly string[]
  version: string | null
}

type Choices = readonly (readonly [value: string, label: string])[]
const CHORDS: Choices = [
  ['new', 'The new line'],
  ['plain', 'The plain chart'],
  ['both', 'Both'],
]
const GRIPS: Choices = [
  ['none', 'None'],
  ['each', 'At each change'],
  ['legend', 'Once each, below'],
]
const TAB: Choices = [
  ['none', 'None'],
  ['comping', 'The comping'],
  ['chord-melody', 'The chord melody'],
]
const BARS: Choices = [
  ['width', 'Four, where they fit'],
  ...Array.from({ length: BARS_A_LINE_RANGE[1] }, (_, at) => [String(at + 1), String(at + 1)] as const),
]
const CARRIES: readonly (readonly [SheetSwitch, string])[] = [
  ['numerals', 'Numerals'],
  ['staff', 'Melody'],
  ['lyrics', 'Words'],
  ['rhythm', 'Rhythm'],
  ['bass', 'Bass line'],
  ['reasons', 'Reasons'],
]
const PAGE: readonly (readonly [SheetSwitch, string])[] = [
  ['large', 'Large print'],
  ['black', 'Black only'],
]

/**
 * What a sheet carries and how it stands on the paper: every change shows at once, and its address
 * gives the same sheet again.
 */
export function SheetComposer({ layout, from, kept, versions, version }: Props) {
  const submit = useSubmit()
  const own = kept.find(({ id }) => id === from)
  return (
    <section className="sheet-form" aria-label="What the sheet carries">
      <Form
        method="get"
        preventScrollReset
        onChange={(event) =>
          void submit(new FormData(event.currentTarget), {
            method: 'get',
            preventScrollReset: true,
            replace: true,
          })
        }
      >
        {/* The address is whole: a switch that is not named is off. */}
        <input type="hidden" name="layout" value={from} />
        <input type="hidden" name="with" value="" />
        {versions.length > 0 && (
          <Field label="Version">
            <select name="version" defaultValue={version ?? ''} key={version}>
              <option value="">As it is worked on</option>
              {versions.map((name) => (
                <option key={name} value={name}>
                  {name}
                </option>
              ))}
            </select>
          </Field>
        )}
        <Choice name="symbols" label="Chords" choices={CHORDS} value={layout.symbols} />
        <Choice name="grips" label="Grips" choices={GRIPS} value={layout.grips} />
        <Choice name="tab" label="Tablature" choices={TAB} value={layout.tab} />
        <Ticks legend="It carries" of={CARRIES} layout={layout} />
        <Choice name="bars" label="Bars a line" choices={BARS} value={String(layout.bars)} />
        <Choice
          name="columns"
          label="Columns"
          choices={[
            ['1', 'One'],
            ['2', 'Two'],
          ]}
          value={String(layout.columns)}
        />
        <label className="tick">
          <input
            type="checkbox"
            name="with"
            value="sections"
            defaultChecked={layout.sections}
            key={String(layout.sections)}
          />
          A section begins a new line
        </label>
        <Choice
          name="paper"
          label="Paper"
          choices={Object.entries(PAPERS).map(([name, { label }]) => [name, label] as const)}
          value={layout.paper}
        />
        <Choice name="part" label="Part for" choices={Object.entries(SHEET_PARTS)} value={layout.part} />
        <Ticks legend="Print" of={PAGE} layout={layout} />
        <noscript>
          <button type="submit">Show it</button>
        </noscript>
      </Form>
      <Form method="post" className="sheet-keep" preventScrollReset>
        <input type="hidden" name="intent" value="keep" />
        <input type="hidden" name="layout" value={JSON.stringify(layout)} />
        <label>
          Keep this layout as
          <input type="text" name="name" required maxLength={40} defaultValue={own?.name ?? ''} key={from} />
        </label>
        <Button type="submit">Keep</Button>
      </Form>
      {own && (
        <Form method="post" preventScrollReset>
          <input type="hidden" name="intent" value="take-out" />
          <input type="hidden" name="id" value={own.id} />
          <Button type="submit" size="small">
            Take “{own.name}” out
          </Button>
        </Form>
      )}
    </section>
  )
}

/** The layouts to begin from: those every tune has, and the tune's own. */
export function LayoutChoice({ from, kept, version }: Pick<Props, 'from' | 'kept' | 'version'>) {
  const submit = useSubmit()
  return (
    <Form
      method="get"
      className="sheet-layout"
      onChange={(event) => void submit(event.currentTarget, { preventScrollReset: true, replace: true })}
    >
      {version !== null && <input type="hidden" name="version" value={version} />}
      <label>
        Layout{' '}
        <select name="layout" defaultValue={from} key={from}>
          {TEMPLATE_NAMES.map((name) => (
            <option key={name} value={name}>
              {TEMPLATES[name].label}
            </option>
          ))}
          {kept.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <noscript>
        <button type="submit">Show it</button>
      </noscript>
    </Form>
  )
}

function Field({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="field">
      <span>{label}</span>
      {children}
    </label>
  )
}

function Choice({
  name,
  label,
  choices,
  value,
}: {
  name: string
  label: string
  choices: Choices
  value: string
}) {
  return (
    <Field label={label}>
      <select name={name} defaultValue={value} key={value}>
        {choices.map(([one, words]) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
    </Field>
  )
}

function Ticks({
  legend,
  of,
  layout,
}: {
  legend: string
  of: readonly (readonly [SheetSwitch, string])[]
  layout: SheetLayout
}) {
  return (
    <fieldset>
      <legend>{legend}</legend>
      <div className="ticks">
        {of.map(([name, label]) => (
          <label key={name} className="tick">
            <input
              type="checkbox"
              name="with"
              value={name}
              defaultChecked={layout[name]}
              key={String(layout[name])}
            />
            {label}
          </label>
        ))}
      </div>
    </fieldset>
  )
}
