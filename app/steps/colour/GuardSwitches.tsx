import FormControlLabel from '@mui/material/FormControlLabel'
import Switch from '@mui/material/Switch'
import { GUARD_NAMES, GUARDS, isOn, type GuardName, type Guards } from '../../../core/reharm/guards'

/** What each guard keeps, as the switch says it; its reason is the title. */
const GUARD_LABELS: Readonly<Record<GuardName, string>> = {
  home: 'Begins and ends at home',
  'way home': 'A way home before the end',
  form: 'The form’s own chords',
  'written bass': 'Written bass stays',
  moving: 'What moves goes on moving',
  melody: 'Nothing sour under the melody',
}

interface Props {
  guards: Guards
  onGuards: (guards: Guards) => void
}

/** What keeps a tune recognisable, each a switch. */
export function GuardSwitches({ guards, onGuards }: Props) {
  return (
    <details className="guards">
      <summary>
        The tune stays recognisable:{' '}
        {GUARD_NAMES.every((name) => isOn(guards, name))
          ? 'all of it'
          : `${GUARD_NAMES.filter((name) => isOn(guards, name)).length} of ${GUARD_NAMES.length} kept`}
      </summary>
      {GUARD_NAMES.map((name) => (
        <FormControlLabel
          key={name}
          title={GUARDS[name]}
          control={
            <Switch
              size="small"
              checked={isOn(guards, name)}
              onChange={(_, on) => onGuards({ ...guards, [name]: on })}
            />
          }
          label={GUARD_LABELS[name]}
        />
      ))}
    </details>
  )
}
