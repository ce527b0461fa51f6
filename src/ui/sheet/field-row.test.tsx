import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { type AnyRecord, definition, type Kind } from "@/core/kinds/index";
import { recordsOf } from "@/core/catalogue/catalogue";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { useCatalogue } from "../pantry/provider";
import { FieldRow } from "./field-row";

const recordOf = (kind: Kind, name: string): AnyRecord => {
  const found = [...recordsOf(demo, kind).values()].find((r) => r.name === name);
  if (!found) throw new Error(`The demo has no ${kind} ${name}.`);
  return found;
};

function Rows({
  kind,
  id,
  paths,
}: {
  readonly kind: Kind;
  readonly id: AnyRecord["id"];
  readonly paths: readonly string[];
}) {
  const record = recordsOf(useCatalogue(), kind).get(id) as AnyRecord;
  return paths.map((path) => <FieldRow key={path} kind={kind} record={record} path={path} />);
}

const shown = async (kind: Kind, name: string, ...paths: string[]) => {
  const { id } = recordOf(kind, name);
  const page = await inPantry(demo, <Rows kind={kind} id={id} paths={paths} />);
  const stored = (path: string) =>
    (recordsOf(page.server.catalogue, kind).get(id) as unknown as Record<string, unknown>)[path];
  return { ...page, id, stored };
};

/** One field of every type that is typed into: what can't be read, why, and what can. */
const TYPED: readonly {
  readonly type: string;
  readonly kind: Kind;
  readonly of: string;
  readonly path: string;
  readonly bad: string;
  readonly message: RegExp;
  readonly good: string;
  readonly stored: unknown;
}[] = [
  {
    type: "text",
    kind: "item",
    of: "Smoked eel",
    path: "name",
    bad: "",
    message: /A name can't be empty\./,
    good: "Amber eel",
    stored: "Amber eel",
  },
  {
    type: "key",
    kind: "item",
    of: "Smoked eel",
    path: "key",
    bad: "Smoked Eel!",
    message: /Use .*letters/,
    good: "amber_eel",
    stored: "amber_eel",
  },
  {
    type: "number",
    kind: "rarity",
    of: "Daily",
    path: "rank",
    bad: "first",
    message: /“first” isn't a number/,
    good: "4",
    stored: 4,
  },
  {
    type: "money",
    kind: "item",
    of: "Smoked eel",
    path: "sell",
    bad: "cheap",
    message: /“cheap” isn't/,
    good: "7.5",
    stored: 7.5,
  },
  {
    type: "duration",
    kind: "recipe",
    of: "Smoke eel",
    path: "ticks",
    bad: "soon",
    message: /“soon” isn't a duration/,
    good: "1m30s",
    stored: 1800,
  },
  {
    type: "flag",
    kind: "type",
    of: "Fare",
    path: "sellable",
    bad: "perhaps",
    message: /“perhaps”.*yes or no/i,
    good: "no",
    stored: false,
  },
  {
    type: "ref",
    kind: "item",
    of: "Smoked eel",
    path: "rarity",
    bad: "Fabled",
    message: /no rarity called “?Fabled/i,
    good: "Sound",
    stored: recordOf("rarity", "Sound").id,
  },
  {
    type: "colour",
    kind: "rarity",
    of: "Daily",
    path: "colour",
    bad: "reddish",
    message: /“reddish” isn't a colour/,
    good: "#aa3311",
    stored: "#aa3311",
  },
];

/** The field's own part of its row: a button first, an input once it is pressed. */
const begin = async (user: Awaited<ReturnType<typeof shown>>["user"]) =>
  user.click(screen.getByRole("button", { name: /\. Edit$/ }));
const typedInto = (): HTMLInputElement =>
  (screen.queryByRole("textbox") ?? screen.getByRole("combobox")) as HTMLInputElement;

describe.each(TYPED)("a field of type $type", ({ type, kind, of, path, bad, message, good, stored }) => {
  it("keeps what can't be read, says why, and writes what can", async () => {
    expect(definition(kind).fields[path].type).toBe(type);
    const page = await shown(kind, of, path);
    await begin(page.user);
    expect(document.activeElement).toBe(typedInto());
    const before = page.stored(path);
    await page.user.clear(typedInto());
    await page.user.keyboard(`${bad}{Enter}`);
    expect((await screen.findByRole("alert")).textContent).toMatch(message);
    expect(typedInto().value).toBe(bad);
    expect(page.stored(path)).toEqual(before);
    await page.user.clear(typedInto());
    await page.user.type(typedInto(), `${good}{Enter}`);
    await waitFor(() => expect(page.stored(path)).toEqual(stored));
    await waitFor(() => expect(screen.queryByRole("alert")).toBe(null));
  });

  it("is given back by Escape", async () => {
    const page = await shown(kind, of, path);
    const before = page.stored(path);
    await begin(page.user);
    await page.user.keyboard(`${good}{Escape}`);
    expect(screen.queryByRole("textbox")).toBe(null);
    expect(page.stored(path)).toEqual(before);
    expect(page.server.requests).toEqual([]);
  });
});

describe("a field of a sheet", () => {
  it("creates the name that is missing, by the button beside the reason", async () => {
    const page = await shown("item", "Smoked eel", "rarity");
    await begin(page.user);
    await page.user.clear(typedInto());
    await page.user.keyboard("Fabled{Enter}");
    await page.user.click(await screen.findByRole("button", { name: "Create rarity Fabled" }));
    await waitFor(() =>
      expect([...page.server.catalogue.records.rarity.values()].map((r) => r.name)).toContain("Fabled"),
    );
    const made = [...page.server.catalogue.records.rarity.values()].find((r) => r.name === "Fabled");
    expect(page.stored("rarity")).toBe(made?.id);
  });

  it("chooses one of a few words from a list", async () => {
    const page = await shown("item", "Smoked eel", "status");
    await page.user.selectOptions(screen.getByRole("combobox", { name: "Status" }), "draft");
    await waitFor(() => expect(page.stored("status")).toBe("draft"));
  });

  it("says what is inherited, and is reset to it", async () => {
    const page = await shown("item", "Smoked eel", "stack");
    await begin(page.user);
    await page.user.clear(typedInto());
    await page.user.keyboard("3{Enter}");
    await waitFor(() => expect(page.stored("stack")).toBe(3));
    await page.user.click(screen.getByRole("button", { name: /: reset to inherited$/ }));
    await waitFor(() => expect(page.stored("stack")).toBe(null));
    expect(screen.getByRole("button", { name: /inherited from .*\. Edit$/ })).toBeTruthy();
  });

  it("does not write what was left as it was", async () => {
    const page = await shown("item", "Smoked eel", "name");
    await begin(page.user);
    await page.user.keyboard("{Enter}");
    expect(page.server.requests).toEqual([]);
    expect(screen.getByRole("button", { name: "Name: Smoked eel. Edit" })).toBeTruthy();
  });
});
