/** The nonce that the policy of this page gives to styles made by scripts. */
export function nonceOf(): string {
  return document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? "";
}
