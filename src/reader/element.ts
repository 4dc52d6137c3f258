/** An element with its text and attributes. */
export const element = <K extends keyof HTMLElementTagNameMap>(
  name: K,
  text: string,
  attributes: Readonly<Record<string, string>> = {},
): HTMLElementTagNameMap[K] => {
  const made = document.createElement(name);
  made.textContent = text;
  for (const [key, value] of Object.entries(attributes)) made.setAttribute(key, value);
  return made;
};
