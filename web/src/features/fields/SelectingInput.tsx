import type { ComponentProps, ReactNode } from 'react'
import { Component, createRef } from 'react'

/**
 * An input whose text stays wholly selected when an answer puts another in its place: what is typed next replaces it, and is
 * not put behind it. A class, since only a class sees the page between an answer and its change.
 */
export class SelectingInput extends Component<ComponentProps<'input'>> {
  private readonly input = createRef<HTMLInputElement>()

  override getSnapshotBeforeUpdate(): boolean {
    const input = this.input.current
    return input !== null && input === document.activeElement && isWhole(input)
  }

  override componentDidUpdate(_before: unknown, _state: unknown, wasWhole: boolean): void {
    const input = this.input.current
    if (wasWhole && input && !isWhole(input)) input.select()
  }

  override render(): ReactNode {
    return <input {...this.props} ref={this.input} />
  }
}

function isWhole({ selectionStart, selectionEnd, value }: HTMLInputElement): boolean {
  return value !== '' && selectionStart === 0 && selectionEnd === value.length
}
