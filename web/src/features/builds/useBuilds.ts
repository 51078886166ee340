import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, done, Refusal } from '../../api/client'
import { SHELF } from '../shelf/useShelf'

/** Builds in use or in the archive, the one saved last first. */
export function useBuildList(archived: boolean) {
  return useQuery({
    queryKey: ['builds', archived],
    queryFn: () => answered(client.GET('/api/builds', { params: { query: { archived } } })),
    staleTime: 0,
  })
}

/** Builds in use, the one saved last first. */
export function useBuilds() {
  return useBuildList(false)
}

/** Whether anything can be saved, and the version that answers. */
export function useServerState() {
  return useQuery({ queryKey: ['state'], queryFn: () => answered(client.GET('/api/state')) })
}

/** One stored build as it is when it is opened; the session takes over from there. */
export function useOpenedBuild(id: number | undefined) {
  return useQuery({
    queryKey: ['build', id],
    queryFn: () => answered(client.GET('/api/builds/{id}', { params: { path: { id: id ?? 0 } } })),
    enabled: id !== undefined,
    gcTime: 0,
    staleTime: Infinity,
  })
}

/** What changes the list of builds; each tells whether it was done and shows the list anew. */
export function useBuildWork(onOpen: (id: number) => void) {
  const queries = useQueryClient()
  const [trouble, setTrouble] = useState<string>()
  const work = async <T>(action: () => Promise<T>): Promise<T | undefined> => {
    try {
      const result = await action()
      setTrouble(undefined)
      await queries.invalidateQueries({ queryKey: ['builds'] })
      return result
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      setTrouble(error.problem.detail)
      return undefined
    }
  }
  const opened = (made: { id: number } | undefined) => {
    if (made) onOpen(made.id)
  }
  const path = (id: number) => ({ params: { path: { id } } })
  const keep = async (document: string) => {
    opened(await work(() => answered(client.POST('/api/builds', { body: { document } }))))
  }
  return {
    trouble,
    keep,
    begin: async (name: string) => {
      opened(await work(() => answered(client.POST('/api/builds/blank', { body: { name } }))))
    },
    copy: async (id: number) => {
      const found = await work(() => answered(client.GET('/api/builds/{id}', path(id))))
      if (found) await keep(found.document)
    },
    archive: async (id: number) =>
      (await work(() => done(client.POST('/api/builds/{id}/archive', path(id))))) === true,
    restore: async (id: number) =>
      (await work(() => done(client.POST('/api/builds/{id}/restore', path(id))))) === true,
    /** Adds the builds and parts of an archive; all of it or nothing. */
    addAll: async (file: File) => {
      // The file itself is the body.
      const sent = () =>
        client.POST('/api/archive', {
          body: [],
          bodySerializer: () => file,
          headers: { 'Content-Type': 'application/zip' },
        })
      const added = await work(() => answered(sent()))
      if (added) await queries.invalidateQueries({ queryKey: SHELF })
      return added
    },
    remove: async (id: number, name: string) =>
      (await work(() =>
        done(client.DELETE('/api/builds/{id}', { ...path(id), body: { name } })),
      )) === true,
  }
}
