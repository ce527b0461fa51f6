import { readWorkbook, writeWorkbook } from "./workbook";
import { describe, expect, it } from "vitest";
import { invert } from "../../catalogue/edit";
import { type Kind, withDefaults } from "../../kinds/index";
import { newId } from "../../schema/id";
import { item, kitchen, must, newItem } from "../../testing/kitchen";
import { decimalSignOf, isDate, readLocal } from "./local";
import { editsInParts, planTable, REASONS, refusedTable, type TableOptions } from "./plan-table";
import {
  cellText,
  decodeText,
  MOST_CELLS,
  readDelimited,
  readTextTable,
  type Table,
  writeDelimited,
} from "./read-table";
import { guessTargets, NEW_FIELD, NEW_STAT, NOTHING, offered, targetsOf } from "./targets";

const made = <K extends Kind>(kind: K, name: string, given: object = {}) =>
  withDefaults(kind, { id: newId(), key: name.toLowerCase().replace(/ /g, "_"), name, ...given } as never);
const vigour = made("stat", "Vigour");
const smell = made("field", "Smell", { form: "choice", options: ["salty", "smoky"] });
const sealed = made("field", "Sealed", { form: "yes or no" });
const fare = made("type", "Fare");
const sound = made("rarity", "Sound");
const fish = made("tag", "fish");
const catalogue = must(kitchen("gather Eel\ngather Salt"), [
  { op: "add", kind: "stat", record: vigour },
  { op: "add", kind: "field", record: smell },
  { op: "add", kind: "field", record: sealed },
  { op: "add", kind: "type", record: fare },
  { op: "add", kind: "rarity", record: sound },
  { op: "add", kind: "tag", record: fish },
  { op: "add", kind: "item", record: newItem("Rope") },
  { op: "add", kind: "item", record: { ...newItem("Rope"), key: "rope_2" } },
]);

const table = (text: string): Table => {
  const { table: read, issues } = readDelimited(text);
  if (!read) throw new Error(JSON.stringify(issues));
  return read;
};
const plan = (text: string, given: Partial<TableOptions> = {}) => {
  const read = table(text);
  return planTable(catalogue, read, {
    kind: "item",
    targets: guessTargets(catalogue, "item", read),
    decimal: decimalSignOf(read),
    make: new Set(),
    clears: false,
    ...given,
  });
};
const states = (text: string, given = {}) => plan(text, given).rows.map((r) => `${r.number} ${r.state} ${r.name}`);

describe("a table that is text", () => {
  it("is read with a comma, a semicolon or a tab between its cells, quoted cells and line ends within", () => {
    const rows = [
      ["a", 'say "ho"', "two\nlines"],
      ["1", "2,5", ""],
    ];
    for (const sign of [",", ";", "\t"]) {
      const text = [["x", "y", "z"], ...rows]
        .map((row) => row.map((cell) => `"${cell.replace(/"/g, '""')}"`).join(sign))
        .join("\r\n");
      expect(table(text)).toEqual({ head: ["x", "y", "z"], rows, first: 2 });
    }
    expect(table("\n\nname\nEel\n")).toMatchObject({ head: ["name"], first: 4 });
  });

  it("comes out as it went in", () => {
    const rows = [
      ["name", "note"],
      ["Eel", 'a "b", c\nd'],
      ["Größe", "; , \t"],
    ];
    for (const sign of [",", "\t"] as const) {
      const read = readTextTable(new TextEncoder().encode(writeDelimited(rows, sign)));
      expect([read.table?.head, ...(read.table?.rows ?? [])].slice(0, 3)).toEqual(rows);
    }
  });

  it("tells its encoding: with a mark, without, UTF-16, Windows-1252", () => {
    const text = "name,note\nKröte,ölig\n";
    const utf16 = (little: boolean, mark: boolean) => {
      const codes = [...(mark ? "\ufeff" : ""), ...text].map((c) => c.charCodeAt(0));
      return new Uint8Array(codes.flatMap((c) => (little ? [c & 255, c >> 8] : [c >> 8, c & 255])));
    };
    const latin = new Uint8Array([...text].map((c) => c.charCodeAt(0)));
    const cases: [Uint8Array, string][] = [
      [new TextEncoder().encode(text), "utf-8"],
      [new TextEncoder().encode(`\ufeff${text}`), "utf-8"],
      [utf16(true, true), "utf-16le"],
      [utf16(true, false), "utf-16le"],
      [utf16(false, true), "utf-16be"],
      [utf16(false, false), "utf-16be"],
      [latin, "windows-1252"],
    ];
    for (const [bytes, encoding] of cases) {
      expect(decodeText(bytes).encoding).toBe(encoding);
      expect(readTextTable(bytes).table?.rows[0]).toEqual(["Kröte", "ölig"]);
    }
  });

  it("says what keeps it from being read", () => {
    expect(readTextTable(new Uint8Array()).issues[0].message).toMatch(
      /^The table is empty\. Its first row must hold the column headings\.$/,
    );
    expect(readDelimited('name\n"Eel').issues[0]).toMatchObject({ message: expect.stringMatching(/not closed/) });
    const wide = `name${",x".repeat(MOST_CELLS)}\nEel`;
    expect(readDelimited(wide).issues[0].message).toMatch(/the maximum is 300/);
  });

  it("has workbook cells as texts, dates as such", () => {
    const cells = [null, 2.5, true, "x", new Date("2026-03-04T00:00:00Z"), new Date(Number.NaN)];
    expect(cells.map(cellText)).toEqual(["", "2.5", "yes", "x", "2026-03-04", ""]);
  });
});

describe("a workbook", () => {
  it("is refused before a row is made for each up to a cell far out", async () => {
    const { strFromU8, strToU8, unzipSync, zipSync } = await import("fflate");
    const files = unzipSync(await writeWorkbook([["name"], ["Eel"]], "Sheet"));
    const sheet = Object.keys(files).find((name) => /worksheets.*\.xml$/.test(name)) as string;
    const moved = (to: string) =>
      zipSync({ ...files, [sheet]: strToU8(strFromU8(files[sheet]).replace('r="A2"', `r="${to}"`)) });
    for (const far of ["XFD1048576", "A1048576", "ZZ2", "A50002"]) {
      const { table: read, issues } = await readWorkbook(moved(far));
      expect([read, issues[0].message]).toEqual([
        null,
        `Cell ${far} is too far out: the maximum is 50,000 rows and 500 columns. Delete it, or save the part you need as CSV.`,
      ]);
    }
    expect((await readWorkbook(moved("A2"))).table?.rows).toHaveLength(1);
  });
});

describe("numbers of a table", () => {
  it("are read with the sign that stands before decimals there", () => {
    const cases: [string, "." | ",", number | null][] = [
      ["1.234,5", ",", 1234.5],
      ["1,234.5", ".", 1234.5],
      ["1,5", ".", null],
      ["1.5", ",", null],
      ["1.500", ",", 1500],
      ["1 200", ".", 1200],
      ["−3 kg", ".", -3],
      ["12 %", ",", 12],
      ["1.2.3", ".", null],
      ["", ".", null],
      ["abc", ".", null],
    ];
    for (const [text, sign, is] of cases) expect(readLocal(text, sign), `${text} ${sign}`).toBe(is);
    expect(decimalSignOf(table("a;b\n1,5;x\n2,25;1.000"))).toBe(",");
    expect(decimalSignOf(table("a,b\n1.5,x"))).toBe(".");
  });

  it("are told from the dates that spreadsheets make of them", () => {
    for (const text of ["3-Jan", "2026-03-04", "1/3/26", "03.04.2026", "Mar-04", "4 Mai 2026"])
      expect(isDate(text), text).toBe(true);
    for (const text of ["1.5", "3", "1-2", "Jan", "1.000.000", "12.5.3.4"]) expect(isDate(text), text).toBe(false);
  });
});

describe("columns of a table", () => {
  it("are guessed from their heads, each target once", () => {
    const read = table("Item;Category;Vigour;Sell price (shells);Mass, kg;Smell;Colour of lid;Name\nx;;;;;;;");
    expect(guessTargets(catalogue, "item", read)).toEqual([
      "name",
      "type",
      "stats.vigour",
      "sell",
      NOTHING,
      "own.smell",
      NOTHING,
      NOTHING,
    ]);
    expect(targetsOf(catalogue, "item").map((t) => t.label)).toEqual(expect.arrayContaining(["Key", "Vigour"]));
    expect(guessTargets(catalogue, "tag", table("label,Key\n"))).toEqual([NOTHING, "key"]);
  });

  it("would rather be a stat where they hold numbers, else a field", () => {
    const read = table("name,Bite,Maker\nEel,3,Ondry\nSalt,2,Ibb");
    expect([1, 2].map((k) => offered(read, k))).toEqual([NEW_STAT, NEW_FIELD]);
  });
});

describe("what a table would do", () => {
  it("is told row by row and cell by cell, and is one change that can be taken back", () => {
    const text = "Name;Type;Tags;Sell;Vigour\nEel;Fare;fish;2,5;6\nSalt;;;;\nSmoked eel;fare;;13;42";
    const made = plan(text);
    expect(made.rows.map((r) => [r.state, r.cells.map((c) => `${c.before}→${c.after}`).join(" ")])).toEqual([
      ["changed", "→Fare →fish →2.5 →6"],
      ["same", ""],
      ["new", "→Smoked eel →Fare →13 →42"],
    ]);
    const next = must(catalogue, made.edits);
    expect(item(next, "Eel")).toMatchObject({ type: fare.id, tags: [fish.id], sell: 2.5, stats: { [vigour.id]: 6 } });
    expect(item(next, "Smoked eel").key).toBe("smoked_eel");
    const back = must(next, invert(made.edits));
    expect([...back.records.item.values()]).toEqual([...catalogue.records.item.values()]);
    expect(states(text, {})).toEqual(["2 changed Eel", "3 same Salt", "4 new Smoked eel"]);
  });

  it("knows records by key before name, renames by key, and makes a name of a key alone", () => {
    const made = plan("key,name\neel,River eel\nsea_holly,");
    const next = must(catalogue, made.edits);
    expect(item(next, "River eel").key).toBe("eel");
    expect(item(next, "Sea holly").key).toBe("sea_holly");
    expect(plan("sell\n3").message).toMatch(
      /^Choose the column with the name or the key, which identifies the record of each row\.$/,
    );
    expect(plan("name,a,b\nEel,1,2", { targets: ["name", "sell", "sell"] }).message).toMatch(
      /^Two columns are imported into sell\. Skip one of them\.$/,
    );
  });

  it("leaves what is empty, or takes it out where that was asked for", () => {
    const priced = must(catalogue, plan("name,sell,vigour\nEel,2,3").edits);
    const read = table("name,sell,vigour\nEel,,");
    const options = {
      kind: "item" as const,
      targets: ["name", "sell", "stats.vigour"],
      decimal: "." as const,
      make: new Set<Kind>(),
    };
    expect(planTable(priced, read, { ...options, clears: false }).rows[0].state).toBe("same");
    const cleared = must(priced, planTable(priced, read, { ...options, clears: true }).edits);
    expect(item(cleared, "Eel")).toMatchObject({ sell: null, stats: {} });
  });

  it("offers what is unknown as new, and makes it once with one tick", () => {
    const text = "name,type,rarity,tags\nEel pie,Kept fare,Prized,festival\nCrab boil,kept fare,Prized,";
    const dry = plan(text);
    expect([...dry.unknown].map(([kind, names]) => [kind, [...names]])).toEqual([
      [
        "type",
        [
          ["Kept fare", 1],
          ["kept fare", 1],
        ],
      ],
      ["rarity", [["Prized", 2]]],
      ["tag", [["festival", 1]]],
    ]);
    expect(dry.edits).toEqual([]);
    const made = plan(text, { make: new Set<Kind>(["type", "rarity", "tag"]) });
    const next = must(catalogue, made.edits);
    expect([...next.records.type.values()].map((t) => t.name)).toEqual(["Fare", "Kept fare"]);
    expect(item(next, "Crab boil").type).toBe(item(next, "Eel pie").type);
    expect(made.rows[0].cells.map((c) => c.after)).toContain("Kept fare");
  });

  it("makes a stat or a field of a column, in the form that its cells have", () => {
    const text = "name;Bite;Maker;Depth\nEel;3;Ondry;1,5\nSalt;2;Ibb;2";
    const made = plan(text, { targets: ["name", NEW_STAT, NEW_FIELD, NEW_FIELD] });
    const next = must(catalogue, made.edits);
    const bite = [...next.records.stat.values()].find((s) => s.name === "Bite");
    expect(item(next, "Eel").stats[bite?.id as never]).toBe(3);
    const forms = [...next.records.field.values()].map((f) => [f.name, f.form]);
    expect(forms).toEqual(
      expect.arrayContaining([
        ["Maker", "text"],
        ["Depth", "decimal"],
      ]),
    );
    expect(Object.values(item(next, "Eel").own).sort()).toEqual([1.5, "Ondry"]);
  });

  it("refuses fourteen sorts of fault, each in its cell with its reason, and takes the rows beside them", () => {
    const faults: [string, RegExp][] = [
      ["Bread,Feast,,1,,ready,,,", /type.*There is no type called “Feast”/s],
      ["Bun,,Odd,1,,ready,,,", /There is no rarity called “Odd”/],
      ["Cake,,,many,,ready,,,", /^sell: “many” isn't a number with “\.” as decimal separator\.$/],
      ["Dab,,,3-Jan,,ready,,,", /is a date/],
      ["Egg,,,1,0,ready,,,", /^stack: 0 is outside the range 1 to 1000000\.$/],
      ["Fig,,,1,1.5,ready,,,", /^stack: 1\.5 isn't a whole number\.$/],
      [",,,1,,ready,,,", /The name is missing/],
      ["Eel,,,1,,ready,,,", /^name: Row 2 is already for this item\.$/],
      ["Rope,,,1,,ready,,,", /2 items are called “Rope”/],
      [
        "Gum,,,1,,raedy,,,",
        /^status: “raedy” isn't an option\. Choose stub, draft, ready or retired\. Did you mean ready\?$/,
      ],
      [`${"x".repeat(121)},,,1,,ready,,,`, /^name: It has 121 characters; the maximum is 120\.$/],
      ["Ham,,,1,,ready,sweet,,", /^smell: “sweet” isn't an option\. Choose salty or smoky\.$/],
      ["Ice,,,1,,ready,,perhaps,", /isn't yes or no/],
      ["Jam,,,1,,ready,,,,,more", /“more” is in cell 11, which has no column heading/],
      ["Kelp,,,1,,ready,,,Reach", /no tag called “Reach”|There is no tag/],
      ["Lard,,,-1,,ready,,,", /-1 is outside the range 0/],
    ];
    const head = "name,type,rarity,sell,stack,status,smell,sealed,tags";
    const text = [head, "Eel,Fare,Sound,1.5,5,ready,salty,yes,fish", ...faults.map(([row]) => row)].join("\n");
    const made = plan(text);
    expect(made.rows.map((r) => r.state)).toEqual(["changed", ...faults.map(() => "refused")]);
    for (const [k, [, why]] of faults.entries())
      expect(made.rows[k + 1].refused.map((c) => `${head.split(",")[c.column]}: ${c.message}`).join(" ")).toMatch(why);
    const next = must(catalogue, made.edits);
    expect(next.records.item.size).toBe(catalogue.records.item.size);

    // What was refused is a table of its own; fixed, it is read like any other.
    const rest = refusedTable(table(text), made);
    expect(rest[0].at(-1)).toBe(REASONS);
    expect(rest).toHaveLength(faults.length + 1);
    const fixed = table(writeDelimited(rest.map((row) => row.map((cell) => (cell === "many" ? "4" : cell)))));
    const again = planTable(next, fixed, {
      kind: "item",
      targets: guessTargets(next, "item", fixed),
      decimal: ".",
      make: new Set(),
      clears: false,
    });
    expect(again.rows.filter((r) => r.state === "new").map((r) => r.name)).toEqual(["Cake"]);
  });

  it("is not led astray by names that the language has itself", () => {
    const read = table("__proto__,constructor,name\n1,2,toString");
    expect(guessTargets(catalogue, "item", read)).toEqual([NOTHING, NOTHING, "name"]);
    expect(plan("name,x\ntoString,1", { targets: ["name", "__proto__"] }).rows[0].state).toBe("new");
  });
});

describe("a table whose rows name each other", () => {
  const drinks = "Name,Vessel,Level\nTonic,Stone crock,2\nStone crock,,1\nStrong tonic,stone_crock,3";

  it("makes neither a stub nor a double of what stands below", () => {
    const next = must(catalogue, plan(drinks).edits);
    expect(next.records.item.size).toBe(catalogue.records.item.size + 3);
    const crock = item(next, "Stone crock");
    expect([crock.status, crock.level]).toEqual(["draft", 1]);
    expect([item(next, "Tonic").vessel, item(next, "Strong tonic").vessel]).toEqual([crock.id, crock.id]);
    const types = "Name,Part of\nDried fare,Preserve\nPreserve,";
    const made = must(catalogue, plan(types, { kind: "type", targets: ["name", "parent"] }).edits);
    const preserve = [...made.records.type.values()].find((t) => t.name === "Preserve");
    expect([...made.records.type.values()].find((t) => t.name === "Dried fare")?.parent).toBe(preserve?.id);
    expect(made.records.type.size).toBe(catalogue.records.type.size + 2);
  });

  it("leaves out what names a row that is refused, and says so", () => {
    const { rows, edits } = plan("Name,Vessel,Level\nTonic,Stone crock,2\nCask,Tonic,1\nStone crock,,many\nJar,,1");
    expect(rows.map((r) => [r.name, r.state, r.refused.map(({ message }) => message)[0] ?? ""])).toEqual([
      ["Tonic", "refused", "It refers to Stone crock, whose row was rejected."],
      ["Cask", "refused", "It refers to Tonic, whose row was rejected."],
      ["Stone crock", "refused", "“many” isn't a number with “.” as decimal separator."],
      ["Jar", "new", ""],
    ]);
    expect(must(catalogue, edits).records.item.size).toBe(catalogue.records.item.size + 1);
  });

  it("is written in parts, each of which names only what is there by then, and nothing that others changed", () => {
    const many = Array.from({ length: 30 }, (_, k) => `Cask no ${k},Cask no ${k + 1},1`).join("\n");
    const { edits } = plan(`Name,Vessel,Level\n${many}\nCask no 30,,1\nEel,,7`);
    const parts = editsInParts(edits, 1);
    expect(parts).toHaveLength(32);
    const renamed = must(catalogue, [
      { op: "set", kind: "item", id: item(catalogue, "Salt").id, field: "name", from: "Salt", to: "Coarse salt" },
    ]);
    const next = parts.reduce((now, part) => must(now, part), renamed);
    expect(item(next, "Coarse salt").id).toBe(item(catalogue, "Salt").id);
    expect(item(next, "Cask no 0").vessel).toBe(item(next, "Cask no 1").id);
    expect(editsInParts(edits)).toEqual([edits]);
    expect(editsInParts([])).toEqual([]);
  });
});

describe("a cell", () => {
  const messages = (text: string, targets: readonly string[], given = {}) =>
    plan(text, { targets, ...given }).rows.map((r) => r.refused[0]?.message ?? r.cells.at(-1)?.after);

  it("of a choice is one of its words as a whole, or asked", () => {
    expect(messages("Name,Smell\nA tonic,salt\nB tonic,Salty\nC tonic,smok", ["name", `own.${smell.key}`])).toEqual([
      "“salt” isn't an option. Choose salty or smoky. Did you mean salty?",
      "salty",
      "“smok” isn't an option. Choose salty or smoky. Did you mean smoky?",
    ]);
  });

  it("with an error of a spreadsheet, or a formula without its value, is told, whatever it is read into", () => {
    for (const cell of ["#REF!", "#N/A", "#DIV/0!", "#NAME?", "=SUM(A1:A3)", "=A1*2", "=-B7"])
      expect(messages(`Name;Description\nA tonic;${cell}`, ["name", "description"])[0], cell).toMatch(
        /is a spreadsheet error|is a formula without a value/,
      );
    for (const cell of ["#fish", "= so it goes", "-5 degrees", "@ the quay"])
      expect(messages(`Name;Description\nA tonic;${cell}`, ["name", "description"])[0], cell).toBe(cell);
  });

  it("with a unit is turned into that of its column, or refused", () => {
    const masses = "Name,Mass\nA,500 g\nB,2 kg\nC,3 dozen\nD,5 min\nE,12%\nF,5k";
    expect(messages(masses, ["name", "mass"]).map((s) => String(s).replace(/ Write.*/, ""))).toEqual([
      "0.5",
      "2",
      "“3 dozen” ends in “dozen”; use kg, g, mg or t. Enter 36.",
      "“5 min” ends in “min”; use kg, g, mg or t.",
      "“12%” is a percentage, but a plain number is needed. Enter 0.12 or 12.",
      "“5k” ends in “k”; use kg, g, mg or t. Enter 5000.",
    ]);
    expect(messages("Name;Mass\nA;1.500 g\nB;1,5", ["name", "mass"], { decimal: "," })).toEqual(["1.5", "1.5"]);
  });

  it("of a column that is new gives it its unit, where all have the same", () => {
    const made = (cells: string[]) => {
      const text = `Name;Weight\n${cells.map((cell, k) => `Cask ${k};${cell}`).join("\n")}`;
      const next = must(catalogue, plan(text, { targets: ["name", NEW_FIELD] }).edits);
      const field = [...next.records.field.values()].find((f) => f.name === "Weight");
      return [field?.form, field?.unit, item(next, "Cask 0").own[field?.id ?? ""]];
    };
    expect(made(["5 kg", "6 kg"])).toEqual(["whole", "kg", 5]);
    expect(made(["5 %", "6.5 %"])).toEqual(["percent", "", 0.05]);
    expect(made(["5 kg", "600 g"])).toEqual(["text", "", "5 kg"]);
    expect(made(["5", "6.5"])).toEqual(["decimal", "", 5]);
  });
});

describe("a table for a spreadsheet", () => {
  it("has nothing in it that would be reckoned, and is read back as it was", () => {
    const cells = ["=1+2", "+cmd", "-x", "@sum", "'=1", "''@a", "-5", "+3.5", "'tis", "plain", "\t=1", "−3"];
    const text = writeDelimited([["a"], ...cells.map((cell) => [cell])]);
    for (const line of text.split("\r\n").slice(1, -1))
      expect(/^"?[=@]/.test(line) || /^"?[+-](?![\d.,]+"?$)/.test(line), line).toBe(false);
    expect(
      table(text)
        .rows.slice(0, cells.length)
        .map(([cell]) => cell),
    ).toEqual(cells);
  });

  it("that is broken behind its mark is refused", () => {
    const broken = new Uint8Array([0xef, 0xbb, 0xbf, 0x61, 0x0a, 0xff, 0xfe, 0x0a]);
    const { table: none, issues } = readTextTable(broken);
    expect(none).toBeNull();
    expect(issues[0].message).toContain(
      "The file says it is UTF-8, but contains other bytes. Save it again as CSV UTF-8.",
    );
  });
});

describe("headings of exports of earlier versions", () => {
  it("are still known", () => {
    const head = ["Name", "Vessel", "Own at most", "Sold", "Waits with", "Leaves burnt", "Time at it"];
    const old = { head, rows: [], encoding: "utf-8" } as never;
    expect(guessTargets(kitchen("gather River eel in 80s"), "item", old)).toEqual([
      "name",
      "vessel",
      "limit",
      "sellable",
      "cooldown",
      "ash",
      "pace",
    ]);
  });
});
