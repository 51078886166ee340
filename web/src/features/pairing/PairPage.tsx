import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { answered, client } from '../../api/client'
import { keep, kept } from '../../model/keep'
import { ME } from '../../model/useMe'
import './pairing.css'

const NAME = 'upper-lobe.device-name'

/** A device that is not let in yet: the code on the main screen, and what the shop calls the device. */
export function PairPage() {
  const queries = useQueryClient()
  const [code, setCode] = useState(codeInAddress)
  const [name, setName] = useState(() => kept(NAME) ?? '')
  const pair = useMutation({
    mutationFn: () => answered(client.POST('/api/pair', { body: { code, name } })),
    onSuccess: (me) => {
      keep(NAME, name)
      // The code is spent, and is nobody's business in a list of pages.
      window.location.replace('#')
      queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== ME[0] })
      queries.setQueryData(ME, me)
    },
  })
  return (
    <main className="pair">
      <h1>Pair this device</h1>
      <p>
        At the main screen: <b>More ▾</b>, <b>Devices of the shop</b>, <b>Show a code</b>. It is
        good for three minutes, once.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          pair.mutate()
        }}
      >
        <label>
          <span>Code</span>
          <Input
            size="large"
            className="pair-code"
            value={code}
            autoFocus={code === ''}
            autoComplete="off"
            autoCapitalize="characters"
            spellCheck={false}
            placeholder="ABCD-EFGH"
            onChange={(event) => setCode(event.target.value)}
          />
        </label>
        <label>
          <span>What the shop calls this device</span>
          <Input
            size="large"
            value={name}
            autoFocus={code !== ''}
            maxLength={40}
            placeholder="Bench tablet"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        {pair.error ? (
          <p className="fault" role="alert">
            {pair.error.message}
          </p>
        ) : null}
        <Button
          type="primary"
          size="large"
          htmlType="submit"
          loading={pair.isPending}
          disabled={code.trim() === '' || name.trim() === ''}
        >
          Pair
        </Button>
      </form>
      <p className="quiet">
        The main screen lists this device, what it may do and what it changed, and can shut it out
        at any time.
      </p>
    </main>
  )
}

/** The code of a link that was scanned. */
function codeInAddress(): string {
  const [, what, code = ''] = window.location.hash.slice(1).split('/')
  return what === 'pair' ? code : ''
}
