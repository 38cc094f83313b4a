import type { Config } from '@react-router/dev/config'

/**
 * All routes are told to the browser with the first page, so that going from step to step asks
 * nothing of the server.
 */
export default { ssr: true, routeDiscovery: { mode: 'initial' } } satisfies Config
