import type { Room } from '../../services/room/room'
import { ColourRoom } from './ColourRoom'

export const colourRoom: Room = {
  name: 'colour',
  label: 'Colour',
  View: ColourRoom,
  firstStep: {
    name: 'colour',
    says: 'Move the control from plain to ninths, then press Space: the plain chords, then yours.',
    done: {
      is: (tune) => tune.colour > 0 || Object.keys(tune.choices).length > 0,
      says: 'That is a richer version. Hear it with Space; move the control further if you like.',
    },
  },
}
