/**
 * What is wrong with a document, as a sentence with its place: what the schema asks for where it says so itself, and
 * our own words for everything that it leaves to its library.
 */
import { z } from 'zod';

type Issue = Parameters<NonNullable<Parameters<typeof z.config>[0]>['customError'] & object>[0];

const MOST_NAMED = 8;

z.config({ customError: (issue) => sentenceOf(issue) });

function sentenceOf(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return `must be ${expected(issue.expected)}, not ${kindOf(issue.input)}.`;
    case 'invalid_value':
      return issue.values.length === 1
        ? `must be ${shown(issue.values[0])}.`
        : `must be one of ${listed(issue.values.map(shown))}, not ${shown(issue.input)}.`;
    case 'invalid_union':
      return 'is of no kind that is known here.';
    case 'too_small':
      return `must ${bound(issue.origin)} at least ${issue.minimum}${unit(issue.origin)}.`;
    case 'too_big':
      return `must ${bound(issue.origin)} at most ${issue.maximum}${unit(issue.origin)}.`;
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}.`;
    case 'invalid_format':
      return issue.format === 'uuid' ? 'must be an id.' : 'has a form that isn’t known here.';
    case 'unrecognized_keys':
      return `holds what isn’t known here: ${listed(issue.keys)}.`;
    case 'invalid_key':
    case 'invalid_element':
      return 'holds an entry that can’t be read.';
    case 'custom':
      return 'can’t be read.';
    default:
      return 'can’t be read.';
  }
}

function expected(kind: string): string {
  switch (kind) {
    case 'string':
      return 'text';
    case 'number':
      return 'a number';
    case 'int':
      return 'a whole number';
    case 'boolean':
      return 'true or false';
    case 'array':
    case 'tuple':
      return 'a list';
    case 'object':
    case 'record':
      return 'an object';
    case 'null':
      return 'null';
    default:
      return 'something else';
  }
}

function kindOf(value: unknown): string {
  if (value === undefined) return 'missing';
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'a list';
  switch (typeof value) {
    case 'string':
      return 'text';
    case 'number':
      return Number.isNaN(value) ? 'no number at all' : Number.isFinite(value) ? 'a number' : 'an endless number';
    case 'boolean':
      return 'true or false';
    case 'object':
      return 'an object';
    default:
      return 'something else';
  }
}

function shown(value: unknown): string {
  if (typeof value === 'string') return `“${value.length > 40 ? `${value.slice(0, 40)}…` : value}”`;
  return typeof value === 'number' || typeof value === 'boolean' ? String(value) : kindOf(value);
}

function listed(words: readonly string[]): string {
  return words.length > MOST_NAMED
    ? `${words.slice(0, MOST_NAMED).join(', ')} and ${words.length - MOST_NAMED} others`
    : words.join(', ');
}

function bound(origin: string): string {
  return origin === 'string' || origin === 'array' || origin === 'set' ? 'have' : 'be';
}

function unit(origin: string): string {
  return origin === 'string' ? ' characters' : origin === 'array' || origin === 'set' ? ' entries' : '';
}

/** The first problem of a Zod error as a sentence with its place. */
export function explain(error: z.ZodError): string {
  const issue = error.issues[0];
  if (!issue) return 'It could not be read.';
  const place = placeOf(issue.path);
  // Sentences of the schemas begin with a capital and stand alone; only which entry of a list it is must be said.
  if (/^\p{Lu}/u.test(issue.message))
    return issue.path.some((key) => typeof key === 'number') ? `${capital(place)}: ${issue.message}` : issue.message;
  return place === '' ? capital(`it ${issue.message}`) : `${capital(place)} ${issue.message}`;
}

/** "blocks", 0, "text" is the text of block 1. */
function placeOf(path: readonly PropertyKey[]): string {
  const words: string[] = [];
  for (let i = 0; i < path.length; i++) {
    const key = path[i];
    if (typeof key === 'number') words.push(`entry ${key + 1}`);
    else if (typeof path[i + 1] === 'number')
      words.push(`${plainWords(String(key)).replace(/s$/, '')} ${(path[++i] as number) + 1}`);
    else words.push(`the ${plainWords(String(key))}`);
  }
  return words.reverse().join(' of ');
}

/** "marginPx" is read as "margin px". */
function plainWords(key: string): string {
  return key.replace(/([a-z0-9])([A-Z])/g, '$1 $2').toLowerCase();
}

function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
