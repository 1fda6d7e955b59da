// Types for the rules that need them. ESLint's own way builds a program anew for each .vue file, which takes a second each;
// here two programs serve all files: one of the page, in which a .vue file is its script, and one of everything else.
import path from 'node:path';
import ts from 'typescript';
import tseslint from 'typescript-eslint';
import vueParser from 'vue-eslint-parser';

const ROOT = path.resolve(import.meta.dirname, '../..');

/** The text of each .vue file's script, exactly as ESLint's parser of such files hands it on. */
const scripts = new Map();

function scriptOf(file) {
  if (scripts.has(file)) return scripts.get(file);
  let script = '';
  // What the template holds is parsed first, the script after it.
  const parser = {
    parseForESLint(code, options) {
      script = code;
      return tseslint.parser.parseForESLint(code, options);
    },
  };
  vueParser.parseForESLint(ts.sys.readFile(file) ?? '', { parser, sourceType: 'module', filePath: file });
  scripts.set(file, script);
  return script;
}

/** A program of what some projects hold together. */
function programOf(configs) {
  const parsed = configs.map((config) => {
    const file = path.join(ROOT, config);
    const { config: json } = ts.readConfigFile(file, ts.sys.readFile);
    const extra = [{ extension: '.vue', isMixedContent: true, scriptKind: ts.ScriptKind.Deferred }];
    return ts.parseJsonConfigFileContent(json, ts.sys, path.dirname(file), {}, file, undefined, extra);
  });
  const options = { ...parsed[0].options, allowNonTsExtensions: true };
  const host = ts.createCompilerHost(options, true);
  const read = host.getSourceFile;
  host.getSourceFile = (file, target, ...rest) =>
    file.endsWith('.vue')
      ? ts.createSourceFile(file, scriptOf(file), target, true, ts.ScriptKind.TS)
      : read.call(host, file, target, ...rest);
  return ts.createProgram({ rootNames: parsed.flatMap(({ fileNames }) => fileNames), options, host });
}

const page = lazily(() => programOf(['web/tsconfig.json']));
const rest = lazily(() => programOf(['tsconfig.json', 'core/tsconfig.json']));

function lazily(make) {
  let made;
  return () => (made ??= make());
}

const isOfPage = (file) => /\/web\/src\/(?!.*\.test\.ts$)/.test(file);

/** Parses TypeScript, with the types of the program that a file is in. */
export const typedParser = {
  meta: { name: 'house-types' },
  parseForESLint(code, options) {
    const file = options.filePath;
    // What a template holds is parsed by itself, and has no types.
    const isWhole = !file.endsWith('.vue') || scriptOf(file) === code;
    const programs = isWhole ? [isOfPage(file) ? page() : rest()] : undefined;
    return tseslint.parser.parseForESLint(code, { ...options, programs });
  },
};
