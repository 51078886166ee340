import { App } from 'antd'
import { FileButton } from '../fields/FileButton'
import { useBuildWork } from './useBuilds'

/** Everything in one open file, out and in: to another machine, or into the safe. */
export function WholeArchive({ readOnly }: { readOnly: boolean }) {
  const { addAll, trouble } = useBuildWork(() => undefined)
  const { message } = App.useApp()
  const read = async (file: File | undefined) => {
    const added = file === undefined ? undefined : await addAll(file)
    if (added)
      void message.success(
        `${added.builds} builds added; ${added.parts_added} parts added, ${added.parts_changed} changed`,
      )
  }
  return (
    <section className="whole-archive" aria-label="Everything in one file">
      <a className="link" href="/api/archive" download="upper-lobe-archive.zip">
        Export everything
      </a>
      {readOnly ? null : (
        <FileButton
          label="Import an archive"
          fileLabel="Archive of everything, file"
          accept=".zip,application/zip"
          onFile={(file) => void read(file)}
        />
      )}
      <span className="quiet">
        all builds with their revisions, and the shelf, in one ZIP of JSON and CSV; an import adds,
        it takes nothing away
      </span>
      {trouble === undefined ? null : (
        <p className="fault" role="alert">
          {trouble}
        </p>
      )}
    </section>
  )
}
