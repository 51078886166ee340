import { App } from 'antd'
import { useState } from 'react'
import { FileButton } from '../fields/FileButton'
import { Faults } from './Faults'
import { useShelfWork } from './useShelf'

/** Larger files are refused before they are read. */
const MOST_BYTES = 4 * 1024 * 1024

/** The whole shelf as a sheet, in and out. */
export function SheetTools({ readOnly }: { readOnly: boolean }) {
  const [tooLarge, setTooLarge] = useState(false)
  const { take, refusal } = useShelfWork()
  const { message } = App.useApp()
  const read = async (file: File | undefined) => {
    if (!file) return
    setTooLarge(file.size > MOST_BYTES)
    if (file.size > MOST_BYTES) return
    const put = await take(await file.text())
    if (put)
      void message.success(
        `${put.added} parts added, ${put.changed} changed, ${put.unchanged} as they were`,
      )
  }
  return (
    <div className="sheet-row">
      {readOnly ? null : (
        <FileButton
          label="Import a parts sheet"
          fileLabel="Parts sheet, file"
          accept=".csv,.tsv,text/csv"
          onFile={(file) => void read(file)}
        />
      )}
      <a className="link" href="/api/parts.csv" download="parts.csv">
        Export the shelf as CSV
      </a>
      <span className="quiet">a line for each part, names of fields in the heading</span>
      {tooLarge ? (
        <p className="fault" role="alert">
          That file is larger than 4 MB.
        </p>
      ) : null}
      {refusal ? <Faults refusal={refusal} /> : null}
    </div>
  )
}
