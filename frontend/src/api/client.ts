import createClient from "openapi-fetch";
import type { paths } from "./schema";
import type { Problem } from "./types";

export const api = createClient<paths>({ baseUrl: window.location.origin });

/** The server answered with a refusal. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super([problem.detail, problem.remedy].filter(Boolean).join(" "));
    this.name = "Refusal";
  }
}

/** The server did not answer. */
export class Unreachable extends Error {
  constructor() {
    super("The program is not answering. Is it still running in its terminal?");
    this.name = "Unreachable";
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Refusal or Unreachable thrown. */
export async function dataOf<T>(request: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await request;
  } catch {
    throw new Unreachable();
  }
  if (answer.data !== undefined) return answer.data;
  const problem = answer.error as Partial<Problem> | undefined;
  throw new Refusal({
    title: problem?.title ?? "The server failed.",
    status: answer.response.status,
    code: problem?.code ?? `http.${answer.response.status}`,
    detail: problem?.detail ?? "The server failed without saying why.",
    remedy: problem?.remedy ?? "",
    field: problem?.field ?? "",
    problems: problem?.problems ?? [],
  });
}

export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : "Something failed without saying why.";
}
