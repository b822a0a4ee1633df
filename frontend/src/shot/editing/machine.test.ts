import { describe, expect, it } from "vitest";
import { after, isSettled, opened, toDo, type Happening, type Kept, type Work } from "./machine";

const kept = (revision: number, body: string): Kept<string> => ({
  id: "a",
  revision,
  can_undo: revision > 1,
  can_redo: false,
  body,
});

const through = (start: Work<string>, ...events: Happening<string>[]) => events.reduce(after<string>, start);
const fresh = () => opened(kept(1, "one"), null);
const edited = (draft: string, passing = false): Happening<string> => ({ what: "edited", draft, passing });

describe("a change", () => {
  it("is drawn at once and sent", () => {
    const work = through(fresh(), edited("two"));
    expect(work.draft).toBe("two");
    expect(toDo(work)).toBe("send");
  });
  it("in passing is drawn and not sent", () => {
    const work = through(fresh(), edited("tw", true));
    expect([work.draft, toDo(work), work.state]).toEqual(["tw", null, "saved"]);
  });
  it("made while another is under way waits for it, and none is lost", () => {
    const work = through(fresh(), edited("two"), { what: "sent" }, edited("three"));
    expect(toDo(work)).toBeNull();
    const next = through(work, { what: "saved", kept: kept(2, "two") });
    expect([next.draft, next.kept.revision, toDo(next)]).toEqual(["three", 2, "send"]);
    const last = through(next, { what: "sent" }, { what: "saved", kept: kept(3, "three") });
    expect([last.state, isSettled(last)]).toEqual(["saved", true]);
  });
});

describe("a save that fails", () => {
  const sent = () => through(fresh(), edited("two"), { what: "sent" });
  it("for want of an answer is tried again, the draft whole", () => {
    const work = through(sent(), { what: "failed", why: "waiting" });
    expect([work.draft, work.state, toDo(work)]).toEqual(["two", "waiting", null]);
    expect(toDo(through(work, { what: "retried" }))).toBe("send");
  });
  it("because it was refused waits for another draft, with the reason", () => {
    const problems = [{ field: "/x", message: "No.", value: "" }];
    const work = through(sent(), { what: "failed", why: "refused", problems });
    expect([toDo(work), work.problems]).toEqual([null, problems]);
    expect(toDo(through(work, { what: "retried" }))).toBeNull();
    expect(toDo(through(work, edited("three")))).toBe("send");
  });
  it("because of another window asks, whatever is typed on", () => {
    const work = through(sent(), { what: "failed", why: "conflict" }, edited("three"));
    expect([work.state, work.draft, toDo(work), isSettled(work)]).toEqual(["conflict", "three", null, false]);
    const mine = through(work, { what: "rebased", kept: kept(7, "theirs") });
    expect([mine.kept.revision, mine.draft, toDo(mine)]).toEqual([7, "three", "send"]);
    const theirs = through(work, { what: "adopted", kept: kept(7, "theirs") });
    expect([theirs.draft, theirs.state, isSettled(theirs)]).toEqual(["theirs", "saved", true]);
  });
  it("after it was overtaken changes nothing", () => {
    const adopted = through(sent(), { what: "adopted", kept: kept(5, "theirs") });
    expect(through(adopted, { what: "failed", why: "waiting" })).toBe(adopted);
  });
});

describe("a draft left in the browser", () => {
  it("is taken up and sent when nothing has changed since", () => {
    const work = opened(kept(3, "kept"), { base_revision: 3, body: "left" });
    expect([work.draft, toDo(work)]).toEqual(["left", "send"]);
  });
  it("asks when something has", () => {
    const work = opened(kept(4, "kept"), { base_revision: 3, body: "left" });
    expect([work.draft, work.state, toDo(work)]).toEqual(["left", "conflict", null]);
  });
});

it("a save answered after the server's form was adopted leaves what the server has", () => {
  const work = through(
    fresh(),
    edited("two"),
    { what: "sent" },
    { what: "adopted", kept: kept(5, "theirs") },
    { what: "saved", kept: kept(6, "two") },
  );
  expect([work.draft, work.kept.revision]).toEqual(["two", 6]);
});

it("whatever happens, a draft that was not kept is never taken for saved", () => {
  // Every sequence of six happenings: what is saved is what the server has.
  const events: Happening<string>[] = [
    edited("x"),
    { what: "sent" },
    { what: "saved", kept: kept(9, "x") },
    { what: "failed", why: "waiting" },
    { what: "failed", why: "conflict" },
    { what: "retried" },
  ];
  const walk = (work: Work<string>, depth: number) => {
    if (work.state === "saved") expect(work.draft).toBe(work.kept.body);
    if (depth === 0) return;
    for (const event of events) {
      if (event.what === "sent" && toDo(work) !== "send") continue;
      if (event.what === "saved" && work.sending === null) continue;
      walk(after(work, event), depth - 1);
    }
  };
  walk(fresh(), 6);
});
