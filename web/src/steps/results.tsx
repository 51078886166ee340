import { BenchSays } from '../features/bench/BenchSays'
import { BenchStep } from '../features/bench/BenchStep'
import { ClearanceStep } from '../features/clearance/ClearanceStep'
import { ControlStep } from '../features/control/ControlStep'
import { DynoStep } from '../features/dyno/DynoStep'
import { DecideStep } from '../features/decide/DecideStep'
import { Order } from '../features/motion/Order'
import { OrderStep } from '../features/order/OrderStep'
import { ServiceStep } from '../features/service/ServiceStep'
import { TorqueStep } from '../features/torque/TorqueStep'
import { step } from './step'

export const control = step({
  name: 'control',
  title: 'Control',
  Answer: ControlStep,
  form: false,
  tall: true,
})

export const clearance = step({
  name: 'clearance',
  title: 'Clearance',
  Answer: () => (
    <>
      <ClearanceStep />
      <BenchSays />
    </>
  ),
  groups: [
    { title: 'Growth at speed', fields: ['growth.'] },
    {
      title: 'Phasing',
      fields: [
        'engine.drive_stretch',
        'engine.timing_steps',
        '@.cam.phaser_advance',
        '@.cam.phaser_retard',
      ],
    },
    { title: 'Rods', fields: ['engine.rod_to_cam', 'engine.rod_to_block'] },
    { title: 'Clay', fields: ['@.clay.intake.', '@.clay.exhaust.'] },
    { title: 'Seals', fields: ['engine.intake.seal_height', 'engine.exhaust.seal_height'] },
    { title: 'Own limits', fields: ['limits'] },
    { title: 'Tolerances', fields: ['tolerances'], folded: 'while empty' },
  ],
  tall: true,
  drawn: true,
})

export const torque = step({
  name: 'torque',
  title: 'Torque',
  Answer: TorqueStep,
  groups: [
    { title: 'Pull on the dyno', fields: ['pull.'], folded: 'while empty' },
    { title: 'Calibration', fields: ['calibration.'], folded: 'until asked' },
  ],
})

export const decide = step({
  name: 'decide',
  title: 'Decide',
  Answer: DecideStep,
  groups: [{ title: 'This candidate', fields: ['@.name'] }],
  form: false,
})

export const order = step({
  name: 'order',
  title: 'Order',
  Answer: () => (
    <>
      <OrderStep />
      <Order />
    </>
  ),
  groups: [{ title: 'Bought', fields: ['bought'], folded: 'while empty' }],
})

export const bench = step({
  name: 'bench',
  title: 'Bench',
  Answer: BenchStep,
  form: false,
})

export const dyno = step({
  name: 'dyno',
  title: 'Dyno',
  Answer: DynoStep,
  groups: [{ title: 'How the test is run', fields: ['dyno_test.'], folded: 'while empty' }],
})

export const service = step({
  name: 'service',
  title: 'Service',
  Answer: ServiceStep,
  form: false,
})
