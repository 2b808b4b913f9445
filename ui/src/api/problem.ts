import type { components } from './schema.gen'

type Problem = components['schemas']['Problem']

/** What the server said went wrong; status 0 when it did not answer at all. */
export class ProblemError extends Error {
  readonly status: number
  readonly problem: Problem | undefined

  constructor(status: number, problem: Problem | undefined) {
    super(problem?.detail ?? `The server answered with status ${String(status)}.`)
    this.status = status
    this.problem = problem
  }

  /** Messages by field name, for a form. */
  get fields(): Record<string, string> {
    const fields: Record<string, string> = {}
    for (const { location, message } of this.problem?.errors ?? []) {
      const name = location.replace(/^body\.?/, '')
      if (name) fields[name] = message
    }
    return fields
  }

  /** The whole in one sentence: the detail, and what no field could show. */
  get summary(): string {
    const rest = (this.problem?.errors ?? []).filter(({ location }) => location === 'body').map(({ message }) =>
      message)
    return [this.message, ...rest].join(' ')
  }
}

export function unreachable(): ProblemError {
  return new ProblemError(0, { title: 'No answer', status: 0, detail: 'The server does not answer.' })
}

/** The server could not be reached: the change waits on this device, and is sent when there is a connection. */
export class KeptForLater extends ProblemError {
  /** The number under which it waits. */
  readonly waiting: number

  constructor(waiting: number) {
    super(0, { title: 'Kept here', status: 0, detail: 'Kept on this device; it is sent as soon as there is a connection.' })
    this.waiting = waiting
  }
}

export function messageOf(error: unknown): string {
  return error instanceof ProblemError ? error.summary : String(error)
}
