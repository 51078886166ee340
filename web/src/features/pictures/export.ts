/** Curves and pictures as files of open formats. */

interface Curve {
  readonly name: string
  readonly points: readonly (readonly [number, number])[]
}

/** One block of columns for each curve: they need not share their abscissa. Pure. */
export function csvOf(xUnit: string, yUnit: string, curves: readonly Curve[]): string {
  const heading = curves
    .flatMap((c) => [`${c.name} at (${xUnit})`, `${c.name} (${yUnit})`])
    .map(quoted)
    .join(',')
  const rows = Math.max(0, ...curves.map((c) => c.points.length))
  const lines = Array.from({ length: rows }, (_, i) =>
    curves.flatMap((c) => [cell(c.points[i]?.[0]), cell(c.points[i]?.[1])]).join(','),
  )
  return [heading, ...lines, ''].join('\r\n')
}

/** Rows of texts. Pure. */
export function csvOfRows(rows: readonly (readonly string[])[]): string {
  return [...rows.map((row) => row.map(quoted).join(',')), ''].join('\r\n')
}

/** Columns that share their abscissa. Pure. */
export function csvOfColumns(
  columns: readonly {
    readonly name: string
    readonly values: readonly number[] | null | undefined
  }[],
): string {
  const given = columns.filter((c): c is { name: string; values: readonly number[] } =>
    Array.isArray(c.values),
  )
  const rows = Math.max(0, ...given.map((c) => c.values.length))
  const lines = Array.from({ length: rows }, (_, i) =>
    given.map((c) => cell(c.values[i])).join(','),
  )
  return [given.map((c) => quoted(c.name)).join(','), ...lines, ''].join('\r\n')
}

function cell(value: number | undefined): string {
  return value === undefined ? '' : String(Number(value.toPrecision(8)))
}

function quoted(text: string): string {
  return /[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text
}

/** A picture that stands by itself: what the page's style gives it is written into it. */
export function pictureOf(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')]
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')]
  from.forEach((element, i) => {
    const style = getComputedStyle(element)
    for (const name of [
      'fill',
      'stroke',
      'stroke-width',
      'stroke-dasharray',
      'font-size',
      'font-weight',
      'font-family',
      'opacity',
    ]) {
      to[i]?.setAttribute(name, style.getPropertyValue(name))
    }
    to[i]?.removeAttribute('class')
  })
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  return new XMLSerializer().serializeToString(copy)
}

export function download(name: string, content: string | Blob, type: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content instanceof Blob ? content : new Blob([content], { type }))
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
