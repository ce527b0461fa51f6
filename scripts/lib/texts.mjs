/** The texts in our source that a person reads: string literals, templates and JSX text, with the line of each. */
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";
import { root } from "./setup.mjs";

/** Attributes, properties and calls that hold code, never a text. */
const CODE_NAMES = new Set([
  "className",
  "d",
  "viewBox",
  "transform",
  "type",
  "key",
  "href",
  "import",
  "strokeDasharray",
]);
const CODE_CALLS = new Set([
  "require",
  "querySelector",
  "querySelectorAll",
  "closest",
  "matches",
  "sql",
  "execute",
  "addEventListener",
]);

/** Attributes and properties whose value a person reads, even where it is one word. */
const TEXT_NAMES = new Set([
  "title",
  "label",
  "help",
  "placeholder",
  "aria-label",
  "name",
  "plural",
  "example",
  "message",
  "unit",
  "one",
  "many",
]);

const skipped = (name) => /\.test\.tsx?$|\.d\.ts$/.test(name);

/** @param tests  whether tests are among them */
export function sourceFiles(folder, tests = false) {
  return readdirSync(join(root, folder), { withFileTypes: true })
    .flatMap((entry) => {
      const path = `${folder}/${entry.name}`;
      if (entry.isDirectory())
        return ["testing", "migrations", "node_modules"].includes(entry.name) ? [] : sourceFiles(path, tests);
      return /\.(tsx?|mjs)$/.test(entry.name) && (tests || !skipped(entry.name)) ? [path] : [];
    })
    .sort();
}

const isClassList = (text) => {
  const words = text.trim().split(/\s+/);
  const classes = words.filter(
    (word) =>
      /^[a-z!*-][\w:!./%[\]()#&>*,='"-]*$/.test(word) &&
      /[-:[]|^(flex|grid|block|inline|relative|absolute|sticky|fixed|truncate|underline|italic|border|hidden|uppercase|tabular)$/.test(
        word,
      ),
  );
  return words.length > 0 && classes.length >= words.length * 0.6;
};

const isSql = (text) =>
  /^\s*(select|insert|update|delete|create|alter|with|lock|begin|set|copy|analyze|drop|listen|notify|truncate|savepoint|rollback)\s+[\w"*(:]/i.test(
    text,
  ) &&
  /\b(from|into|table|set|where|index|as|to|on|constraints|local|transaction|stdin)\b/i.test(text) &&
  !/[.?”]$/.test(text.trim());

const shortened = (node, source) => {
  const text = node.getText(source).replace(/\s+/g, " ");
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
};

function shown(node, source) {
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isJsxText(node)) return node.text.replace(/\s+/g, " ").trim();
  return (
    node.head.text +
    node.templateSpans.map((span) => `{${shortened(span.expression, source)}}${span.literal.text}`).join("")
  );
}

function nameAround(node, source) {
  let at = node.parent;
  while (
    at &&
    (ts.isConditionalExpression(at) ||
      ts.isParenthesizedExpression(at) ||
      ts.isJsxExpression(at) ||
      ts.isBinaryExpression(at) ||
      ts.isArrayLiteralExpression(at))
  )
    at = at.parent;
  if (!at) return {};
  if (ts.isJsxAttribute(at)) return { name: at.name.getText(source) };
  if (ts.isPropertyAssignment(at)) return { name: at.name.getText(source).replace(/"/g, "") };
  if (ts.isCallExpression(at)) return { call: at.expression.getText(source).split(".").pop() };
  if (ts.isTaggedTemplateExpression(at)) return { call: at.tag.getText(source) };
  if (ts.isImportDeclaration(at) || ts.isExportDeclaration(at) || ts.isLiteralTypeNode(at)) return { call: "require" };
  return {};
}

/** @returns {{file: string, line: number, text: string}[]} in the order of the file */
export function textsOf(file) {
  const source = ts.createSourceFile(file, readFileSync(join(root, file), "utf8"), ts.ScriptTarget.Latest, true);
  const texts = [];
  const visit = (node) => {
    const literal =
      ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node);
    if (literal || ts.isJsxText(node)) {
      const text = shown(node, source);
      const { name, call } = nameAround(node, source);
      const isKey = ts.isPropertyAssignment(node.parent) && node.parent.name === node;
      const plain = text.replace(/\{[^{}]*\}/g, "");
      const isText =
        !isKey &&
        !CODE_NAMES.has(name) &&
        !CODE_CALLS.has(call) &&
        /[A-Za-z]{2}/.test(plain) &&
        (ts.isJsxText(node) ||
          (TEXT_NAMES.has(name) && /^[A-Z]|\s/.test(text)) ||
          (/\s/.test(plain.trim()) && !isClassList(plain) && !isSql(plain)) ||
          /^[A-Z][a-z]+$/.test(text));
      if (isText)
        texts.push({
          file,
          line: source.getLineAndCharacterOfPosition(node.getStart(source)).line + 1,
          text: text.trim(),
        });
      if (ts.isTemplateExpression(node)) for (const span of node.templateSpans) visit(span.expression);
      return;
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts;
}

export const fromRoot = (path) => relative(root, path);
