export const loader = () => new Response('')
