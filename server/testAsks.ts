/** What tests ask of a running server over HTTP. */

/** Any server that answers somewhere. */
interface Answering {
  address: string;
}

export const ask = (server: Answering, path: string, method = 'GET', body?: unknown): Promise<Response> =>
  fetch(`${server.address}/api${path}`, {
    method,
    ...(body instanceof Uint8Array ? { body: body as Uint8Array<ArrayBuffer> } : body === undefined ? {} : json(body)),
  });

const json = (body: unknown): RequestInit => ({
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

/** Throws where it is refused. */
export async function good<T = unknown>(server: Answering, path: string, method = 'GET', body?: unknown): Promise<T> {
  const answer = await ask(server, path, method, body);
  if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`);
  return (answer.status === 204 ? null : await answer.json()) as T;
}

/** The status and the sentence it is refused with. */
export async function said(answer: Promise<Response>): Promise<[number, string]> {
  const got = await answer;
  const { error } = (await got.json()) as { error?: { message: string } };
  return [got.status, error?.message ?? ''];
}

/** What everything of a collection is called, by ids, however many there are. */
export async function namesOf(server: Answering, collection: string): Promise<Map<string, string>> {
  const all = new Map<string, string>();
  for (let after: string | null = ''; after !== null;) {
    const page: { items: { id: string; card: { name: string } }[]; next: string | null } = await good(
      server,
      `/${collection}?limit=500${after && `&after=${encodeURIComponent(after)}`}`,
    );
    for (const { id, card } of page.items) all.set(id, card.name);
    after = page.next;
  }
  return all;
}
