import { isUnsaved } from '../../model/state'
import { useSessionPart } from '../../model/useSession'

/** Which revision paper and files are of, in words: what is printed with edits that nobody saved says so. */
export function useRevision(): string {
  const revision = useSessionPart((state) => state.summary.revision)
  const unsaved = useSessionPart(isUnsaved)
  return revisionWords(revision, unsaved)
}

/** Pure. */
export function revisionWords(revision: number, unsaved: boolean): string {
  return `${String(revision)}${unsaved ? ', with edits that are not saved' : ''}`
}
