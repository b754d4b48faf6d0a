import createClient from 'openapi-fetch'
import type { paths } from './schema'
import type { Change, Problem } from './types'

/** What the server refused, or that it could not be reached (status 0). */
export class ApiError extends Error {
  constructor(
    public readonly status: number,
    message: string,
    public readonly problems: Problem[] = [],
    public readonly body: Record<string, unknown> = {},
  ) {
    super(message)
  }

  /** What is wrong, problem by problem where it tells any. */
  get words(): string {
    return this.problems.length ? this.problems.map((p) => p.what).join('; ') : this.message
  }

  /** Whether it was not reached, or has no database or no room just now: it may do well later. */
  get isOffline(): boolean {
    return [0, 503, 507].includes(this.status)
  }

  /** Whether it lies in what was sent: the same again would be refused again. */
  get isRefusal(): boolean {
    return this.status >= 400 && this.status < 500 && ![408, 425, 429].includes(this.status)
  }

  /** The changes that came in between, for a stale revision. */
  get since(): Change[] {
    return (this.body['since'] as Change[] | undefined) ?? []
  }
}

// Of openapi-fetch 0.15: later ones take a pair of numbers for a list of any length.
/** All of the API, its paths, parameters and answers typed by the document that is made from it. */
export const api = createClient<paths>()

/** What was asked of the network, or that the network failed. */
async function reach<R>(request: Promise<R>): Promise<R> {
  try {
    return await request
  } catch {
    throw new ApiError(0, 'The server does not answer.')
  }
}

function refusal(status: number, said: unknown): ApiError {
  const detail = (typeof said === 'object' && said ? said : {}) as { message?: string; problems?: Problem[] }
  const message = detail.message ?? `The server answered ${status}.`
  return new ApiError(status, message, detail.problems ?? [], detail as Record<string, unknown>)
}

/** What a call of ``api`` brings; throws where it is refused or does not come through. */
export async function taken<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await reach(call)
  if (!response.ok) throw refusal(response.status, error)
  return data as T
}

/** A call that hangs is given up: what it was to save is kept, and an edit that had arrived is recognised. */
const LONGEST_MS = 120_000

/** Hand over each line of the answer as it arrives. */
export async function sendForLines<T>(path: string, body: unknown, take: (line: T) => void): Promise<void> {
  const headers = { 'Content-Type': 'application/json' }
  const signal = AbortSignal.timeout(LONGEST_MS)
  const response = await reach(fetch(path, { method: 'POST', headers, body: JSON.stringify(body), signal }))
  if (!response.ok) throw refusal(response.status, await response.json().catch(() => null))
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (;;) {
    const { done, value } = await reach(reader.read())
    if (done) return
    const lines = (rest + value).split('\n')
    rest = lines.pop()!
    for (const line of lines) take(JSON.parse(line) as T)
  }
}

/** The body of a call that sends a file as it is. */
export const file = (body: Blob | FormData) => ({ body: body as never, bodySerializer: () => body })
