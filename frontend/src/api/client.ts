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

  get isOffline(): boolean {
    return this.status === 0 || this.status === 503
  }

  /** The changes that came in between, for a stale revision. */
  get since(): Change[] {
    return (this.body['since'] as Change[] | undefined) ?? []
  }
}

async function answer<T>(request: Promise<Response>): Promise<T> {
  let response: Response
  try {
    response = await request
  } catch {
    throw new ApiError(0, 'The server does not answer.')
  }
  const text = await response.text()
  let body: unknown = null
  try {
    body = text ? JSON.parse(text) : null
  } catch {
    body = null
  }
  if (!response.ok) {
    const detail = (body ?? {}) as { message?: string; problems?: Problem[] }
    throw new ApiError(
      response.status,
      detail.message ?? `The server answered ${response.status}.`,
      detail.problems ?? [],
      detail as Record<string, unknown>,
    )
  }
  return body as T
}

export function get<T>(path: string): Promise<T> {
  return answer<T>(fetch(path))
}

export function send<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
  const headers = { 'Content-Type': 'application/json' }
  return answer<T>(fetch(path, { method, headers, body: JSON.stringify(body) }))
}

export function upload<T>(path: string, body: Blob | FormData): Promise<T> {
  return answer<T>(fetch(path, { method: 'POST', body }))
}
