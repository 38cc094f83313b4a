import type { StyleName } from '../../../core/leading/weights'
import type { TextureName } from '../../../core/leading/textureNames'

export const STYLE_LABELS: Readonly<Record<StyleName, string>> = {
  smooth: 'Smooth',
  contrary: 'Contrary',
  tension: 'Tension',
  bass: 'Bass-led',
  top: 'Top-led',
  position: 'One position',
  drone: 'Drone',
  thin: 'Thin',
  rootless: 'Rootless',
}

export const TEXTURE_LABELS: Readonly<Record<TextureName, string>> = {
  'as it comes': 'As it comes',
  open: 'Open chords',
  shells: 'Shells',
  'shells and colour': 'Shells and colour',
  'drop 2': 'Drop 2',
  'drop 3': 'Drop 3',
  rootless: 'Rootless fours',
  'upper structures': 'Upper structures',
  fourths: 'Fourths',
  triads: 'Triads',
  'two voices': 'Two voices',
}
