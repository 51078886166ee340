interface Props<T extends string> {
  readonly label: string
  readonly options: readonly { readonly value: T; readonly label: string }[]
  readonly value: T
  readonly onChange: (value: T) => void
}

/** One of a few, all in sight, in as many lines as they need. */
export function Choices<T extends string>({ label, options, value, onChange }: Props<T>) {
  return (
    <div className="choices" role="group" aria-label={label}>
      {options.map((option) => (
        <button
          key={option.value}
          type="button"
          className={option.value === value ? 'chosen' : ''}
          aria-pressed={option.value === value}
          onClick={() => onChange(option.value)}
        >
          {option.label}
        </button>
      ))}
    </div>
  )
}
