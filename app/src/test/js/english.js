import { readFileSync } from "node:fs";

// What scripts say in English, as the server gives it to them.
export function english() {
  const file = new URL("../../main/resources/language/en.properties", import.meta.url);
  const sentences = Object.fromEntries(readFileSync(file, "utf8").split("\n").filter((l) => l.startsWith("js.")).map((l) => {
    const at = l.indexOf("=");
    return [l.slice(3, at), l.slice(at + 1)];
  }));
  return { tag: "en", sentences };
}
