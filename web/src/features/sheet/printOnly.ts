/** Prints what carries this class and nothing else of the page. */
export function printOnly(name: string): void {
  const root = document.documentElement
  root.dataset.printOnly = name
  // The dialog closes with this event in every browser that prints.
  window.addEventListener(
    'afterprint',
    () => {
      delete root.dataset.printOnly
    },
    { once: true },
  )
  window.print()
}
