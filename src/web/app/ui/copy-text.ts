/** Copies a text; false where the browser does not let a page do so: then it is marked and copied by hand. */
export async function copyText(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    // Browsers refuse it on addresses that are not secure, and where the person has forbidden it.
    return false;
  }
}
