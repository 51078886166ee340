import { Button } from 'antd'
import { useRef } from 'react'

/** A button that asks for a file; the same file may be chosen twice. */
export function FileButton({
  label,
  fileLabel,
  accept,
  onFile,
}: {
  label: string
  fileLabel: string
  accept: string
  onFile: (file: File | undefined) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={fileLabel}
        onChange={(event) => {
          onFile(event.target.files?.[0])
          event.target.value = ''
        }}
      />
    </>
  )
}
