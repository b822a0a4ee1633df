import { beforeAll, describe, expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://127.0.0.1" } });
let client: typeof import("./client");
beforeAll(async () => {
  client = await import("./client");
});

const response = (status: number) => new Response(null, { status });

describe("the answer of the server", () => {
  it("is its data when there is any", async () => {
    await expect(
      client.dataOf(Promise.resolve({ data: { a: 1 }, response: response(200) })),
    ).resolves.toEqual({ a: 1 });
  });

  it("is a refusal with its sentence and way out", async () => {
    const error = {
      title: "No",
      status: 422,
      code: "x",
      detail: "Depth is wrong.",
      remedy: "Mend it.",
      problems: [],
    };
    await expect(client.dataOf(Promise.resolve({ error, response: response(422) }))).rejects.toMatchObject({
      name: "Refusal",
      message: "Depth is wrong. Mend it.",
      problem: { code: "x" },
    });
  });

  it("is a refusal even when the server says nothing of its own", async () => {
    await expect(client.dataOf(Promise.resolve({ response: response(500) }))).rejects.toMatchObject({
      problem: { code: "http.500", status: 500 },
    });
  });

  it("is missing when the server is", async () => {
    await expect(client.dataOf(Promise.reject(new TypeError("Failed to fetch")))).rejects.toBeInstanceOf(
      client.Unreachable,
    );
  });

  it("is told in a sentence whatever was thrown", () => {
    expect(client.sentenceOf(new client.Unreachable())).toMatch(/not answering/);
    expect(client.sentenceOf("odd")).toMatch(/\.$/);
  });
});
