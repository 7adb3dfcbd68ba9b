import { test } from "node:test";
import assert from "node:assert/strict";
import { data } from "../../main/resources/static/assets/answers.js";

const json = { headers: { "Content-Type": "application/json" } };

test("only data is read as data", async () => {
  assert.deepEqual(await data(new Response('{"a": 1}', json)), { a: 1 });
  assert.equal(await data(new Response("<!doctype html>", { headers: { "Content-Type": "text/html" } })), null);
  assert.equal(await data(new Response('{"a": 1}', { ...json, status: 422 })), null);
  assert.equal(await data(new Response('{"a": ', json)), null);
  assert.equal(await data(Object.defineProperty(new Response("{}", json), "redirected", { value: true })), null);
  assert.equal(await data(null), null);
});
