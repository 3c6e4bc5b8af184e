// node validate.mjs SCHEMA.json DOCUMENT.json: exit code 1 and a line for each
// place where the document breaks the schema. "sarif" names the standard's own.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
const validators = { '2020-12': require('ajv/dist/2020').default, 'draft-04': require('ajv-draft-04').default };

const [wanted, path] = process.argv.slice(2);
const schemaPath = wanted === 'sarif' ? require.resolve('@microsoft/jest-sarif/lib/schemas/sarif-2.1.0-rtm.5.json') : wanted;
const schema = JSON.parse(readFileSync(schemaPath, 'utf8'));
const draft = Object.keys(validators).find((name) => String(schema.$schema).includes(name));
if (!draft) throw new Error(`${schemaPath}: no validator for ${schema.$schema}`);
const ajv = new validators[draft]({ strict: false, allErrors: true, validateFormats: false, unicodeRegExp: false });
const check = ajv.compile(schema);
if (!check(JSON.parse(readFileSync(path, 'utf8')))) {
  for (const error of check.errors.slice(0, 20)) console.log(`${error.instancePath || '/'} ${error.message} ${JSON.stringify(error.params)}`);
  process.exit(1);
}
