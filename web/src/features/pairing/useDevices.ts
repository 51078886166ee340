import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Devices, PairingState, Role } from '../../api/client'
import { answered, client, done } from '../../api/client'

const DEVICES = ['devices']
const STATE = ['pairing']
/** While somebody looks, ms. */
const OFTEN = 1_500

/** The door to the shop's network and who was let in, as long as somebody looks. */
export function useDevices(isOpen: boolean) {
  const queries = useQueryClient()
  const state = useQuery<PairingState>({
    queryKey: STATE,
    queryFn: () => answered(client.GET('/api/pairing')),
    enabled: isOpen,
    refetchInterval: OFTEN,
  })
  const devices = useQuery<Devices>({
    queryKey: DEVICES,
    queryFn: () => answered(client.GET('/api/devices')),
    enabled: isOpen,
    refetchInterval: OFTEN,
  })
  const asked = () => queries.invalidateQueries({ queryKey: STATE })
  const show = useMutation({
    mutationFn: (role: Role) => answered(client.POST('/api/pairing', { body: { role } })),
    onSuccess: asked,
  })
  const hide = useMutation({
    mutationFn: () => done(client.DELETE('/api/pairing')),
    onSuccess: async () => {
      show.reset()
      await asked()
    },
  })
  const shutOut = useMutation({
    mutationFn: (id: number) =>
      answered(client.DELETE('/api/devices/{id}', { params: { path: { id } } })),
    onSuccess: (all) => queries.setQueryData(DEVICES, all),
  })
  return { state: state.data, devices: devices.data, show, hide, shutOut }
}
