import { fileNameFrom } from '../../services/sound/saveSound'

/** A file to be kept, under a name of any letters. */
export const fileAnswer = (content: BodyInit, name: string, type: string): Response =>
  new Response(content, {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename="${name.replace(/[^\w.-]+/g, '-')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  })

export const pdfAnswer = (bytes: Buffer, title: string): Response =>
  fileAnswer(new Uint8Array(bytes), `${fileNameFrom(title)}.pdf`, 'application/pdf')

/** A file that cannot be had, and why. */
export const refusedFile = (message: string, status = 404): Response =>
  new Response(`${message}\n`, { status, headers: { 'Content-Type': 'text/plain; charset=utf-8' } })
