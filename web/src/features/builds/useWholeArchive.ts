import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, Refusal } from '../../api/client'

/** Takes in an archive of builds and parts; all of it or nothing. */
export function useWholeArchive() {
  const queries = useQueryClient()
  const [trouble, setTrouble] = useState<string>()
  const take = async (file: File) => {
    try {
      const sent = client.POST('/api/archive', { body: [], bodySerializer: () => file, headers: { 'Content-Type': 'application/zip' } })
      const added = await answered(sent)
      setTrouble(undefined)
      await Promise.all(['builds', 'shelf'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
      return added
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      setTrouble(error.problem.detail)
      return undefined
    }
  }
  return { take, trouble }
}
