import { fileNameFrom } from '../../../core/formats/fileName'
import { WorkEnded } from '../../services/workers/pool.server'

/** A file to be kept, under a name of any letters. */
export const fileAnswer = (content: BodyInit, name: string, type: string): Response =>
  new Response(content, {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${name.replace(/[^\w.-]+/g, '-')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  })

export const pdfAnswer = (bytes: Uint8Array, title: string): Response =>
  fileAnswer(bytes as Uint8Array<ArrayBuffer>, `${fileNameFrom(title)}.pdf`, 'application/pdf')

/** What is made in a worker, or why it was ended there. */
export async function madeOr(make: () => Promise<Response>): Promise<Response> {
  try {
    return await make()
  } catch (error) {
    if (error instanceof WorkEnded) return refusedFile(error.message, 503)
    throw error
  }
}

/** A file that cannot be had, and why. */
export const refusedFile = (message: string, status = 404): Response =>
  new Response(`${message}\n`, { status, headers: { 'Content-Type': 'text/plain; charset=utf-8' } })
