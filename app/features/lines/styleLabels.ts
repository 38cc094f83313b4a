import type { StyleName } from '../../../core/leading/weights'

export const STYLE_LABELS: Readonly<Record<StyleName, string>> = {
  smooth: 'Smooth', contrary: 'Contrary', tension: 'Tension', bass: 'Bass-led', top: 'Top-led', position: 'One position', drone: 'Drone', thin: 'Thin', rootless: 'Rootless',
}
