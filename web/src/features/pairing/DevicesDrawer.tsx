import { Button, Drawer, Popconfirm, Segmented } from 'antd'
import { useState } from 'react'
import type { Devices, Role, ShownCode } from '../../api/client'
import { useNarrow } from '../../model/useNarrow'
import './pairing.css'
import { ROLES, sinceOf } from './roles'
import { useDevices } from './useDevices'

interface Props {
  readonly open: boolean
  readonly onClose: () => void
}

/** Tablets of the shop: let in by a code, listed with what they may and did, and shut out. */
export function DevicesDrawer({ open, onClose }: Props) {
  const narrow = useNarrow()
  const { state, devices, show, hide, shutOut } = useDevices(open)
  const isShown = state?.code_left_s !== undefined && state.code_left_s !== null
  const close = () => {
    if (isShown) hide.mutate()
    onClose()
  }
  return (
    <Drawer
      title="Devices of the shop"
      open={open}
      onClose={close}
      size={narrow ? '100%' : 640}
      destroyOnHidden
    >
      {state && state.addresses.length === 0 ? <ThisMachineOnly /> : null}
      {state && state.addresses.length > 0 ? (
        <>
          <NewDevice onShow={(role) => show.mutate(role)} />
          {show.data && isShown ? (
            <Code
              shown={show.data}
              left={state.code_left_s ?? 0}
              fingerprint={state.fingerprint}
              onHide={() => hide.mutate()}
            />
          ) : null}
          {show.data && !isShown ? (
            <p role="status">
              The code is good no more: it paired a device, was mistyped too often, or its time is
              over.
            </p>
          ) : null}
          {show.error ? (
            <p className="fault" role="alert">
              {show.error.message}
            </p>
          ) : null}
        </>
      ) : null}
      {devices ? <LetIn devices={devices} onShutOut={(id) => shutOut.mutate(id)} /> : null}
    </Drawer>
  )
}

function ThisMachineOnly() {
  return (
    <p>
      This server serves this machine only. To use a tablet beside the engine, start it with{' '}
      <code>upper-lobe serve --lan</code>: devices of the shop&rsquo;s own network are then let in,
      over TLS, each paired from here.
    </p>
  )
}

function NewDevice({ onShow }: { onShow: (role: Role) => void }) {
  const [role, setRole] = useState<Role>('readings')
  const chosen = ROLES.find(({ value }) => value === role)
  return (
    <section className="new-device" aria-label="Another device">
      <h2>Another device</h2>
      <Segmented<Role>
        aria-label="What it may"
        value={role}
        onChange={setRole}
        options={ROLES.map(({ value, label }) => ({ value, label }))}
      />
      <p className="quiet">{chosen?.says}</p>
      <Button type="primary" onClick={() => onShow(role)}>
        Show a code
      </Button>
    </section>
  )
}

interface CodeProps {
  readonly shown: ShownCode
  readonly left: number
  readonly fingerprint: string
  readonly onHide: () => void
}

/** A code in letters and as a picture, with what to do with it. */
function Code({ shown, left, fingerprint, onHide }: CodeProps) {
  return (
    <section className="code" aria-label="Code">
      <p className="code-letters">
        <output aria-label="The code">{shown.code}</output>
        <span className="quiet"> good once, for {left} s more</span>
      </p>
      <div className="code-ways">
        <div>
          {shown.links.map(({ link, qr_svg: svg }) => (
            <figure key={link}>
              <img
                src={`data:image/svg+xml,${encodeURIComponent(svg)}`}
                alt={`Link ${link}`}
                width={222}
                height={222}
              />
              <figcaption>{link}</figcaption>
            </figure>
          ))}
        </div>
        <ol>
          <li>Join the shop&rsquo;s network with the device and scan, or type the address.</li>
          <li>
            Its browser warns once, since this shop made its certificate itself. Look at the
            certificate there and go on only if its SHA-256 reads
            <br />
            <code className="fingerprint">{fingerprint}</code>
          </li>
          <li>Give the device a name.</li>
        </ol>
      </div>
      <Button onClick={onHide}>Hide the code</Button>
    </section>
  )
}

function LetIn({ devices, onShutOut }: { devices: Devices; onShutOut: (id: number) => void }) {
  const { devices: all, changes } = devices
  if (all.length === 0) return <p className="quiet">No device was paired yet.</p>
  const nameOf = (id: number) => all.find((one) => one.id === id)?.name ?? ''
  return (
    <>
      <table className="figures">
        <caption>Devices that were paired</caption>
        <thead>
          <tr>
            <th scope="col">Device</th>
            <th scope="col">May</th>
            <th scope="col">Paired</th>
            <th scope="col">Last here</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {all.map((one) => (
            <tr key={one.id} className={one.shut_out_at ? 'quiet' : ''}>
              <th scope="row">{one.name}</th>
              <td>{ROLES.find(({ value }) => value === one.role)?.label}</td>
              <td>{sinceOf(one.paired_at)}</td>
              <td>{one.seen_at ? sinceOf(one.seen_at) : 'not since'}</td>
              <td>
                {one.shut_out_at ? (
                  `shut out ${sinceOf(one.shut_out_at)}`
                ) : (
                  <Popconfirm
                    title={`Shut ${one.name} out?`}
                    description="It is out at once. Readings that wait in it stay there; it can be paired anew."
                    okText="Shut out"
                    onConfirm={() => onShutOut(one.id)}
                  >
                    <Button size="small" aria-label={`Shut ${one.name} out`}>
                      Shut out
                    </Button>
                  </Popconfirm>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changes.length > 0 ? (
        <table className="figures">
          <caption>What they changed</caption>
          <tbody>
            {changes.map((one, place) => (
              <tr key={`${one.at} ${String(place)}`}>
                <td>{sinceOf(one.at)}</td>
                <th scope="row">{nameOf(one.device)}</th>
                <td>{one.what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </>
  )
}
