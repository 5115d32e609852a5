import type { Code, Problem } from './types.gen'

/** A request that was refused, or that never reached the server (code "unavailable"). */
export class Refused extends Error {
  readonly code: Code
  constructor(code: Code) {
    super(code)
    this.code = code
  }
}

/** Calls the server; a refusal or a missing network becomes a Refused. */
export async function call<Reply>(
  method: 'GET' | 'POST' | 'DELETE',
  path: string,
  body?: unknown,
  /** It is sent to the end although the page goes meanwhile; for little. */
  lasting = false,
): Promise<Reply> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      body: body === undefined ? undefined : JSON.stringify(body),
      keepalive: lasting,
      headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    })
  } catch {
    throw new Refused('unavailable')
  }
  if (response.status === 204) return undefined as Reply
  if (response.ok) return (await response.json()) as Reply
  const problem = (await response.json().catch(() => null)) as Problem | null
  throw new Refused(problem?.code ?? 'unavailable')
}

/**
 * Sends a file, tells how much of it has gone (0 to 1), and can be stopped.
 * A refusal or a missing network becomes a Refused; stopping becomes an AbortError.
 */
export function send<Reply>(path: string, file: Blob, onProgress: (share: number) => void) {
  const request = new XMLHttpRequest()
  const done = new Promise<Reply>((resolve, reject) => {
    request.upload.onprogress = (e) => e.lengthComputable && onProgress(e.loaded / e.total)
    request.onload = () => {
      const reply = request.response as unknown
      if (request.status === 204 || (request.status < 300 && reply)) resolve(reply as Reply)
      else reject(new Refused((reply as Problem | null)?.code ?? 'unavailable'))
    }
    request.onerror = () => reject(new Refused('unavailable'))
    request.onabort = () => reject(new DOMException('stopped', 'AbortError'))
  })
  request.open('POST', `/api${path}`)
  request.responseType = 'json'
  request.setRequestHeader('Content-Type', file.type || 'application/octet-stream')
  request.send(file)
  return { done, cancel: () => request.abort() }
}

/** Fetches a file and gives it to the person under a name, without one under the server's. A refusal or a missing network becomes a Refused. */
export async function download(path: string, name?: string) {
  let response: Response
  try {
    response = await fetch(`/api${path}`)
  } catch {
    throw new Refused('unavailable')
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => null)) as Problem | null
    throw new Refused(problem?.code ?? 'unavailable')
  }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await response.blob())
  link.download = name ?? /filename="([^"]+)"/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? ''
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

/** The code of whatever was thrown. */
export const codeOf = (error: unknown): Code => (error instanceof Refused ? error.code : 'unavailable')
