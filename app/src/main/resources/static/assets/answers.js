// What a server answers as data; null where it answers something else, such as the page to sign in on once nobody is signed in any more,
// or where the answer ends before it is whole, since the page is being left.
export async function data(answer) {
  const json = answer?.ok && !answer.redirected && (answer.headers.get("Content-Type") ?? "").includes("json");
  return json ? answer.json().catch(() => null) : null;
}
