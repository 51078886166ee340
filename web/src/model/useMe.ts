import { useQuery } from '@tanstack/react-query'
import type { Me } from '../api/client'
import { answered, client } from '../api/client'

export const ME = ['me']

/** A device of the network may be shut out at any time, ms. */
const ASK_AGAIN = 10_000

/** Who this page is to the server: the main screen, or a device of the shop's network with its role. */
export function useMe(): { readonly me: Me | undefined; readonly isAsked: boolean } {
  const { data, isPending } = useQuery<Me>({
    queryKey: ME,
    queryFn: () => answered(client.GET('/api/me')),
    staleTime: Infinity,
    retry: false,
    refetchInterval: ({ state }) => (isDevice(state.data) ? ASK_AGAIN : false),
  })
  return { me: data, isAsked: !isPending }
}

/** Whether it is a device of the network, paired or not. Pure. */
export function isDevice(me: Me | undefined): boolean {
  return me?.here === false
}
