import { index, route, type RouteConfig } from '@react-router/dev/routes'

export default [
  index('routes/songbook.tsx'),
  route('deleted', 'routes/deleted.tsx'),
  route('tunes/:tuneId/:step?', 'routes/tune.tsx'),
  route('tunes/:tuneId/edits', 'routes/tune.edits.ts'),
  route('tunes/:tuneId/sheet', 'routes/sheet.tsx'),
  route('tunes/:tuneId/sheet.pdf', 'routes/sheet.pdf.ts'),
  route('tunes/:tuneId/why', 'routes/why.tsx'),
  route('tunes/:tuneId/file/:format', 'routes/tune.file.ts'),
  route('tunes/:tuneId/practice-log', 'routes/tune.practice.ts'),
  route('practice/passes', 'routes/practice.passes.ts'),
  route('log', 'routes/log.tsx'),
  route('log/file', 'routes/log.file.ts'),
  route('trainer', 'routes/trainer.tsx'),
  route('grips', 'routes/grips.tsx'),
  route('grips/kept', 'routes/grips.kept.ts'),
  route('player', 'routes/player.tsx'),
  route('player/edits', 'routes/player.edits.ts'),
] satisfies RouteConfig
