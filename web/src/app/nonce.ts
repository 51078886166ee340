/**
 * Two helpers of Ant Design make style elements without the nonce they were given; under this page's
 * Content-Security-Policy those would be refused. Every new style element gets it here.
 */
export function passNonceToStyles(): void {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="csp-nonce"]')?.content
  if (!nonce) return
  // The overloads for retired elements are marked deprecated; the method itself is not.
  type Make = (tag: string, options?: ElementCreationOptions) => HTMLElement
  // eslint-disable-next-line @typescript-eslint/no-deprecated, @typescript-eslint/unbound-method
  const make: Make = Document.prototype.createElement
  function createElement(
    this: Document,
    tag: string,
    options?: ElementCreationOptions,
  ): HTMLElement {
    const element = make.call(this, tag, options)
    if (element instanceof HTMLStyleElement) element.nonce = nonce ?? ''
    return element
  }
  Object.defineProperty(Document.prototype, 'createElement', {
    value: createElement,
    configurable: true,
    writable: true,
  })
}
