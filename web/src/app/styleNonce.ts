import { nonceOf } from "../shared/nonce";

/** Gives every script-made `<style>` the page's nonce, and keeps its text off `innerHTML`:
 * the policy allows neither a style without nonce nor an untrusted sink. Imported first. */
export const nonce = nonceOf();

const create = document.createElement.bind(document);

document.createElement = ((name: string, options?: ElementCreationOptions) => {
  const element = create(name, options);
  if (element instanceof HTMLStyleElement) {
    element.nonce = nonce;
    Object.defineProperty(element, "innerHTML", {
      get: () => element.textContent,
      set: (text: string) => {
        element.textContent = text;
      },
    });
  }
  return element;
}) as typeof document.createElement;
