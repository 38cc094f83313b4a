/** The steps of the work in their order, as they stand along the top. */
export const STEPS = ['chart', 'colour', 'lines', 'melody'] as const
export type Step = (typeof STEPS)[number]

export const STEP_NAMES: Readonly<Record<Step, string>> = { chart: 'Chart', colour: 'Colour', lines: 'Lines', melody: 'Melody' }

export const isStep = (text: string | undefined): text is Step => STEPS.includes(text as Step)
