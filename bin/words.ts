import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { RETIRED, type Retired } from './retiredWords';

/** One text that a person can meet, with `{…}` where a value stands in it. */
export interface Told {
  file: string;
  line: number;
  text: string;
}

const ATTRIBUTES_UNSEEN =
  /^(className|class|id|key|href|src|type|name|rel|as|role|d|viewBox|fill|stroke|method|action|value|htmlFor|for|accept|inputMode|autoComplete|client:.*|data-.*|aria-(live|hidden|haspopup|controls|describedby|labelledby|current|orientation|sort|modal|atomic|expanded|pressed|selected))$/;
const CODE_LIKE =
  /^(select|insert into|update|delete from|with [a-z]+ as|alter|create|begin) |^(take back|taken back)$|^(\.{0,2}\/|[a-z]+:\/\/|#|data-|aria-|--|@)|\b(SELECT|INSERT INTO|UPDATE|DELETE FROM|CREATE|ALTER|BEGIN|COMMIT|ROLLBACK|LISTEN|WHERE)\b|^[a-z]+\/[a-z+.-]+$|^[\w.-]+\.(ts|tsx|mjs|js|css|json|pdf|svg|zip)$/;

/** A lone word or a sentence for a person, told from a key, a path, a statement or a class name. */
function isTold(text: string): boolean {
  const words = text.trim();
  if (!/\p{L}/u.test(words) || CODE_LIKE.test(words)) return false;
  if (/^[A-Z][A-Z0-9_]+$/.test(words) || /^[a-z]+([A-Z][a-z]*)+$/.test(words)) return false;
  const tokens = words.split(/\s+/);
  if (tokens.length === 1) return /^\p{Lu}/u.test(words) && !/[_=/]/.test(words);
  const styled = tokens.filter((token) =>
    /^[a-z0-9]+([-:[][\w\-:[\]().,%/#*]+)+$|^(flex|grid|block|inline|hidden|absolute|relative|sticky|truncate|border|rounded)$/.test(
      token,
    ),
  ).length;
  return styled < tokens.length / 2;
}

/** `text` with the holes of a template written `{…}` and its white space joined. */
function templateText(node: ts.TemplateExpression): string {
  return node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join('');
}

/** All texts of a TypeScript source, JSX children of one element joined to one text, in order. */
export function toldIn(file: string, source: string): Told[] {
  const parsed = ts.createSourceFile(
    file,
    source,
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('.ts') ? ts.ScriptKind.TS : ts.ScriptKind.TSX,
  );
  const found: Told[] = [];
  const add = (node: ts.Node, text: string, sure = false): void => {
    const joined = text.replace(/\s+/g, ' ').trim();
    if (joined === '' || !(sure ? /\p{L}/u.test(joined.replaceAll('{…}', '')) : isTold(joined))) return;
    found.push({
      file,
      line: parsed.getLineAndCharacterOfPosition(node.getStart(parsed)).line + 1,
      text: joined,
    });
  };
  const visit = (node: ts.Node): void => {
    if (
      ts.isImportDeclaration(node) ||
      ts.isExportDeclaration(node) ||
      ts.isTypeNode(node) ||
      ts.isInterfaceDeclaration(node)
    )
      return;
    if (ts.isJsxElement(node) || ts.isJsxFragment(node)) {
      if (node.children.some((child) => ts.isJsxText(child) && child.text.trim() !== '')) {
        add(node, node.children.map((child) => (ts.isJsxText(child) ? child.text : '{…}')).join(''), true);
      }
    }
    if (ts.isJsxAttribute(node)) {
      if (ATTRIBUTES_UNSEEN.test(node.name.getText(parsed))) return;
      if (node.initializer && ts.isStringLiteral(node.initializer)) {
        add(
          node,
          node.initializer.text,
          /label|title|alt|placeholder|text|words/i.test(node.name.getText(parsed)),
        );
        return;
      }
    }
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      const compared =
        ts.isBinaryExpression(node.parent) && /^[=!]==$/.test(node.parent.operatorToken.getText(parsed));
      const named =
        (ts.isPropertyAssignment(node.parent) && node.parent.name === node) ||
        ts.isCaseClause(node.parent) ||
        ts.isElementAccessExpression(node.parent);
      if (!compared && !named) add(node, node.text);
      return;
    }
    if (ts.isTemplateExpression(node)) add(node, templateText(node));
    ts.forEachChild(node, visit);
  };
  visit(parsed);
  return found;
}

/** The script between the fences of an Astro page is TypeScript; what follows reads as JSX, near enough for its texts. */
function astroAsTsx(source: string): string {
  const [, head = '', body = ''] = /^---\n([\s\S]*?)\n---\n([\s\S]*)$/.exec(source) ?? [];
  const markup = body
    .replace(/<!doctype[^>]*>/i, '')
    .replace(/<(script|style)\b[\s\S]*?<\/\1>/g, '')
    .replace(/<(meta|link)([^>]*[^/])>/g, '<$1$2/>');
  return `${head}\nconst page = <>\n${markup}</>;\n`;
}

const ROOMS = ['src', 'docs'];
const PAGES = ['README.md', 'CONTRIBUTING.md'];
/** Texts of others, figures, and what was decided when. */
const NOT_OURS = /licences|migrations|mutants\.md|decisions|screenshots/;

/** Every text of the program, by file and line: screens, refusals, prints, and the pages of docs by their lines. */
export function everyText(): Told[] {
  const found = ROOMS.flatMap((room) =>
    readdirSync(room, { recursive: true, encoding: 'utf8' }).map((path) => `${room}/${path}`),
  );
  const files = [...PAGES, ...found]
    .filter((file) => /\.(tsx?|astro|md)$/.test(file) && !NOT_OURS.test(file))
    .sort();
  return files.flatMap((file) => {
    const source = readFileSync(file, 'utf8');
    if (file.endsWith('.md')) {
      const lines = source.split('\n').map((text, at) => ({ file, line: at + 1, text: text.trim() }));
      return lines.filter(({ text }) => /\p{L}/u.test(text));
    }
    return file.endsWith('.astro')
      ? toldIn(`${file}.tsx`, astroAsTsx(source)).map((told) => ({ ...told, file }))
      : toldIn(file, source);
  });
}

/** The texts in which a word stands that the list of words has retired. */
export function retiredIn(
  texts: Told[],
  retired: Retired[] = RETIRED,
): { told: Told; instead: string; word: string }[] {
  return texts.flatMap((told) =>
    retired.flatMap(({ pattern, instead, except }) => {
      const word = pattern.exec(told.text)?.[0];
      return word === undefined || except?.test(told.text) ? [] : [{ told, instead, word }];
    }),
  );
}

if (process.argv[1]?.endsWith('words.ts')) {
  const wanted = process.argv[2];
  const texts = everyText().filter(({ file }) => wanted === undefined || file.includes(wanted));
  for (const { file, line, text } of texts) console.log(`${file}:${line}\t${text}`);
  for (const { told, word, instead } of retiredIn(texts)) {
    console.error(`${told.file}:${told.line} says “${word}”: ${instead}`);
  }
}
