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

/** What was asked of the network, or that the network failed. */
async function reach<R>(request: Promise<R>): Promise<R> {
  try {
    return await request
  } catch {
    throw new ApiError(0, 'The server does not answer.')
  }
}

function parse(text: string): unknown {
  try {
    return text ? JSON.parse(text) : null
  } catch {
    return null
  }
}

async function refusal(response: Response): Promise<ApiError> {
  const detail = (parse(await response.text()) ?? {}) as { message?: string; problems?: Problem[] }
  const message = detail.message ?? `The server answered ${response.status}.`
  return new ApiError(response.status, message, detail.problems ?? [], detail as Record<string, unknown>)
}

async function answer<T>(request: Promise<Response>): Promise<T> {
  const response = await reach(request)
  if (!response.ok) throw await refusal(response)
  return parse(await response.text()) as T
}

function post(path: string, body: unknown, method = 'POST'): Promise<Response> {
  const headers = { 'Content-Type': 'application/json' }
  return fetch(path, { method, headers, body: JSON.stringify(body) })
}

export function get<T>(path: string): Promise<T> {
  return answer<T>(fetch(path))
}

export function send<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
  return answer<T>(post(path, body, method))
}

/** Hand over each line of the answer as it arrives. */
export async function sendForLines<T>(path: string, body: unknown, take: (line: T) => void): Promise<void> {
  const response = await reach(post(path, body))
  if (!response.ok) throw await refusal(response)
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

export function upload<T>(path: string, body: Blob | FormData): Promise<T> {
  return answer<T>(fetch(path, { method: 'POST', body }))
}
