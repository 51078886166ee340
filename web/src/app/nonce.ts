/**
 * Two helpers of Ant Design make style elements without the nonce they were given; under this page's
 * Content-Security-Policy those would be refused. Every new style element gets it here.
 */
export function passNonceToStyles(): void {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content
  if (!nonce) return
  const make = document.createElement.bind(document) as (tag: string, options?: ElementCreationOptions) => HTMLElement
  document.createElement = ((tag: string, options?: ElementCreationOptions) => {
    const element = make(tag, options)
    if (element instanceof HTMLStyleElement) element.nonce = nonce
    return element
  }) as typeof document.createElement
}
