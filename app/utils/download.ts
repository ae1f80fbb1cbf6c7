import { ownHeaders } from '~/client/api'

/** Fetches a file that a request makes, and hands it to the browser to keep. @throws Error with a sentence */
export async function downloadFile(path: string, body: object): Promise<void> {
  const reply = await fetch(`/api/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...ownHeaders() },
    body: JSON.stringify(body),
  })
  if (!reply.ok)
    throw new Error(((await reply.json()) as { detail?: string }).detail ?? 'The file could not be written.')
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await reply.blob())
  link.download = /filename="([^"]+)"/.exec(reply.headers.get('content-disposition') ?? '')?.[1] ?? 'questions'
  link.click()
  URL.revokeObjectURL(link.href)
}
