import { memo } from 'react'
import type { Face } from '../../../paper/fonts'
import type { Mark } from '../../../paper/marks'
import type { Page } from '../../../paper/pages'

/** The fonts of the printed pages, as the style sheet of this page names them. */
const FAMILIES: Readonly<Record<Face, { family: string; weight: number }>> = {
  serif: { family: 'Vollkorn', weight: 400 },
  'serif-bold': { family: 'Vollkorn', weight: 600 },
  sans: { family: 'Source Sans 3', weight: 400 },
  'sans-bold': { family: 'Source Sans 3', weight: 600 },
  music: { family: 'Noto Music', weight: 400 },
}

/** One page of paper: the same marks at the same places as in the PDF. */
export const PageView = memo(function PageView({
  page: { paper, width, height, marks },
  number,
  of,
  black,
}: {
  page: Page
  number: number
  of: number
  black: boolean
}) {
  return (
    <svg
      className={`paper-page paper-${paper}${black ? ' black' : ''}`}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`Page ${number} of ${of}`}
    >
      {marks.map((mark, at) => (
        <MarkView key={at} mark={mark} />
      ))}
    </svg>
  )
})

function MarkView({ mark }: { mark: Mark }) {
  switch (mark.kind) {
    case 'group':
      return (
        <g role={mark.role} aria-label={mark.label}>
          {mark.marks.map((one, at) => (
            <MarkView key={at} mark={one} />
          ))}
        </g>
      )
    case 'text': {
      const { family, weight } = FAMILIES[mark.face]
      return (
        <text
          x={mark.x}
          y={mark.y}
          className={`fill-${mark.shade}`}
          fontFamily={family}
          fontWeight={weight}
          fontSize={mark.size}
          xmlSpace="preserve"
        >
          {mark.text}
        </text>
      )
    }
    case 'path':
      return (
        <path
          d={mark.d}
          className={mark.fill ? `fill-${mark.fill}` : `stroke-${mark.stroke ?? 'ink'}`}
          {...(mark.fill ? {} : { strokeWidth: mark.width ?? 0.6, fill: 'none' })}
        />
      )
  }
}
