import { Refusal } from './client'

/** What the server says of a field of a form that it refused, by the last or any part of its path. */
export function errorsOf(error: Error | null): (path: string) => string | undefined {
  const problems = error instanceof Refusal ? error.body.errors : []
  return (path) => problems.find((one) => one.path.split('.').includes(path))?.message
}
