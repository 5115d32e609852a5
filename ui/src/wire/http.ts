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
export async function call<Reply>(method: 'GET' | 'POST', path: string, body?: unknown): Promise<Reply> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      body: body === undefined ? undefined : JSON.stringify(body),
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

/** The code of whatever was thrown. */
export const codeOf = (error: unknown): Code => (error instanceof Refused ? error.code : 'unavailable')
