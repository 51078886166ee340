/** This day as the document writes it. */
export function today(): string {
  const now = new Date()
  const two = (number: number) => String(number).padStart(2, '0')
  return `${String(now.getFullYear())}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
