// What people read, in the language of the page: patterns as ICU's MessageFormat has them, as far as ours go, held to the same cases as
// the server's. Numbers are written with all their digits; plurals are those of the browser (ECMA-402, Intl.PluralRules).
let tag = "en";
let sentences = {};

export function speak(language) {
  ({ tag, sentences } = language);
}
const there = typeof document === "undefined" ? null : document.getElementById("language");
if (there) speak(JSON.parse(there.textContent));

const number = (n, grouped) => n.toLocaleString(tag, { useGrouping: grouped, maximumFractionDigits: 20 });
const plain = (value) => (typeof value === "number" ? number(value, false) : String(value));

// Where the brace that opens at a place is closed.
function end(pattern, from) {
  let open = 0;
  for (let i = from; i < pattern.length; i++) {
    if (pattern[i] === "{") open++;
    else if (pattern[i] === "}" && --open === 0) return i;
  }
  throw new SyntaxError(`a brace is not closed: ${pattern}`);
}

function plural(cases, count, about) {
  const all = new Map();
  for (let i = 0; i < cases.length;) {
    const open = cases.indexOf("{", i);
    if (open < 0) break;
    const close = end(cases, open);
    all.set(cases.slice(i, open).trim(), cases.slice(open + 1, close));
    i = close + 1;
  }
  const text = all.get(`=${count}`) ?? all.get(new Intl.PluralRules(tag).select(count)) ?? all.get("other");
  return format(text, about, number(count, true));
}

function format(pattern, about, count = null) {
  let said = "";
  for (let i = 0; i < pattern.length;) {
    if (pattern[i] === "{") {
      const close = end(pattern, i);
      const [, name, cases] = /^\{(\d+)(?:, plural,([\s\S]*))?$/.exec(pattern.slice(i, close)) ?? [];
      if (name === undefined) throw new SyntaxError(`this is no place for a value: ${pattern}`);
      said += cases === undefined ? plain(about[name]) : plural(cases, about[name], about);
      i = close + 1;
    } else {
      said += pattern[i] === "#" && count !== null ? count : pattern[i];
      i++;
    }
  }
  return said;
}

// A sentence with what it is about.
export function say(key, ...about) {
  if (!(key in sentences)) throw new ReferenceError(`no sentence has the key ${key}`);
  return format(sentences[key], about);
}
