/** A copy of a document without the page's reactive wrapping, fit to be sent to a worker or kept. */
export function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
