/** Have a paper printed that is kept nowhere, and hand it over as a file; returns what went wrong, in words. */
export async function printed(path: string, name: string, body?: unknown): Promise<string> {
  const asked: RequestInit = { method: 'POST' }
  if (body !== undefined) Object.assign(asked, { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } })
  const answer = await fetch(path, asked).catch(() => null)
  if (!answer?.ok) {
    const words = answer ? ((await answer.json().catch(() => null)) as { message?: string } | null)?.message : null
    return words ?? 'the server does not answer'
  }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await answer.blob())
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  return ''
}
