/** What the server was asked, as tests look at it. */
export type Asked = { method: string; path: string; body: unknown; headers: Headers }

type Answer = { status?: number; body?: unknown; headers?: Record<string, string> } | 'no connection'

let answering: (asked: Asked) => Answer = () => 'no connection'
let all: Asked[] = []

/**
 * Answers requests in place of the server: by method and path, with what was asked at hand. Returns all that is asked.
 */
export function serve(answer: (asked: Asked) => Answer): Asked[] {
  answering = answer
  all = []
  return all
}

/** Stands in the place of fetch. */
export async function respond(request: Request): Promise<Response> {
  const text = await request.text()
  const url = new URL(request.url)
  const asked = { method: request.method, path: url.pathname + url.search,
    body: text ? (JSON.parse(text) as unknown) : undefined, headers: request.headers }
  all.push(asked)
  const given = answering(asked)
  if (given === 'no connection') throw new TypeError('Failed to fetch')
  const { status = 200, body, headers } = given
  return new Response(body === undefined ? null : JSON.stringify(body),
    { status, headers: { 'Content-Type': 'application/json', ...headers } })
}

/** A refusal as the server writes it. */
export function refusal(status: number, detail: string, more: object = {}) {
  return { status, body: { title: 'Refused', status, detail, ...more },
    headers: { 'Content-Type': 'application/problem+json' } }
}
