import assert from "node:assert/strict";
import { readFileSync, readdirSync } from "node:fs";
import { test } from "node:test";
import { say, speak } from "../../main/resources/static/assets/say.js";
import { english } from "./english.js";

test("patterns are said as the server says them", () => {
  const file = new URL("../../../../core/src/test/resources/org/calmpalette/core/language/cases.json", import.meta.url);
  const all = JSON.parse(readFileSync(file, "utf8"));
  assert.ok(all.length > 20);
  for (const { tag, pattern, about, said } of all) {
    speak({ tag, sentences: { one: pattern } });
    assert.equal(say("one", ...about), said, JSON.stringify({ tag, pattern, about }));
  }
});

test("a sentence that nobody wrote, and one that cannot be read, are mistakes of ours", () => {
  speak({ tag: "en", sentences: { open: "{0", odd: "{name}" } });
  assert.throws(() => say("none"), ReferenceError);
  assert.throws(() => say("open", 1), SyntaxError);
  assert.throws(() => say("odd", 1), SyntaxError);
});

test("all that scripts say in English can be said", () => {
  speak(english());
  const keys = Object.keys(english().sentences);
  assert.ok(keys.length > 60);
  for (const key of keys) assert.ok(say(key, 2, 3, 4, 5, 6, 7).length > 1, key);
});

test("what scripts ask for is there", () => {
  const folder = new URL("../../main/resources/static/assets/", import.meta.url);
  const asked = new Set();
  for (const name of readdirSync(folder).filter((n) => n.endsWith(".js") && n !== "editor.js")) {
    const script = readFileSync(new URL(name, folder), "utf8");
    // The first of what it is given: a key, or a choice of keys.
    for (const [, first] of script.matchAll(/(?<![.\w])say\(((?:[^(),]|\([^()]*\))*)/g)) {
      for (const [, key] of first.matchAll(/[?:] "([a-z.-]+)"|^"([a-z.-]+)"/g)) if (key) asked.add(key);
      const only = /^"([a-z.-]+)"/.exec(first);
      if (only) asked.add(only[1]);
    }
  }
  assert.ok(asked.size > 50);
  const { sentences } = english();
  assert.deepEqual([...asked].filter((key) => !(key in sentences)), []);
});
