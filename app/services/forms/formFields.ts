import { data } from 'react-router'

/**
 * The fields of a form as a page sent them. @throws a 400 answer in words, where the body is no
 * form
 */
export async function fieldsOf(request: Request): Promise<Record<string, FormDataEntryValue>> {
  try {
    return Object.fromEntries(await request.formData())
  } catch {
    throw data('This request carries no form. Nothing was changed. Open the page itself and try again.', {
      status: 400,
      statusText: 'No form',
    })
  }
}
