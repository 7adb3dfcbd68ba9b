import { readFileSync } from "node:fs";

// What core is held to as well: each file is read by a test of core and by one here.
export const cases = (name) => JSON.parse(readFileSync(new URL(`../../../../core/src/test/resources/cases/${name}.json`, import.meta.url)));
