/** What routes answer, called as the router calls them. */

/** What a route gives or throws: its status and what it says. */
export async function answerOf(run: () => unknown): Promise<{ status: number; data: unknown }> {
  const read = async (value: unknown) => {
    if (value instanceof Response) {
      const text = await value.text();
      return {
        status: value.status,
        data: value.headers.get("content-type")?.includes("json") ? JSON.parse(text) : text,
      };
    }
    if (value !== null && typeof value === "object" && "init" in value && "data" in value) {
      return { status: (value.init as ResponseInit | null)?.status ?? 200, data: value.data };
    }
    return { status: 200, data: value };
  };
  try {
    return await read(await run());
  } catch (thrown) {
    // A database's error may be of another realm than this test's, and no instance of its Error.
    const isAnswer = thrown instanceof Response || (typeof thrown === "object" && thrown !== null && "init" in thrown);
    if (!isAnswer) throw thrown;
    return read(thrown);
  }
}

/** As the router calls a route. */
export type RouteArguments = { params: Record<string, string>; request: Request };
/** What a route answers when it is read. */
export const get = (route: unknown, params: Record<string, string>, query = "") =>
  answerOf(() => (route as (of: RouteArguments) => unknown)({ params, request: new Request(`http://desk/x${query}`) }));
/** The same when something is sent to it. */
export const post = (route: unknown, params: Record<string, string>, body: BodyInit, type?: string, query = "") =>
  answerOf(() =>
    (route as (of: RouteArguments) => unknown)({
      params,
      request: new Request(`http://desk/x${query}`, {
        method: "POST",
        body,
        headers: type ? { "content-type": type } : {},
      }),
    }),
  );
