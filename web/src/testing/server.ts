/** A request as a test wants to look at it. */
export interface Sent {
  method: string;
  path: string;
  body: unknown;
}

type Answer = (sent: Sent) => unknown;

/** Stands in for the server: keeps what was sent, and answers what the test says. */
class Server {
  sent: Sent[] = [];
  private answers: { method: string; path: RegExp; answer: Answer }[] = [];

  /** Says what to answer, at once or later; a number is a status of trouble, undefined an empty answer. */
  on(method: string, path: RegExp, answer: Answer): void {
    this.answers.unshift({ method, path, answer });
  }

  async take(request: Request): Promise<Response> {
    const path = new URL(request.url).pathname;
    const text = await request.text();
    const sent = { method: request.method, path, body: text ? (JSON.parse(text) as unknown) : null };
    this.sent.push(sent);
    const found = this.answers.find((a) => a.method === sent.method && a.path.test(path));
    const body = found ? await found.answer(sent) : 404;
    if (body === undefined) return new Response(null, { status: 204 });
    const status = typeof body === 'number' ? body : 200;
    const problem = { detail: `Trouble ${status}`, remedy: 'Try it otherwise.', where: null };
    return new Response(JSON.stringify(typeof body === 'number' ? problem : body), {
      status,
      headers: { 'content-type': 'application/json' },
    });
  }

  last(method: string): Sent | undefined {
    return this.sent.filter((s) => s.method === method).at(-1);
  }

  reset(): void {
    this.sent = [];
    this.answers = [];
  }
}

export const server = new Server();
