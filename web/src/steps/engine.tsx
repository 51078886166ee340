import { BenchSays } from '../features/bench/BenchSays'
import { EngineAnswer } from '../features/engine/EngineAnswer'
import type { Group } from '../model/groups'
import { list } from '../model/groups'
import { step } from './step'

const port = (side: 'intake' | 'exhaust', title: string): Group[] => [
  {
    title: `${title} valve and pocket`,
    fields: [
      ...list(
        `engine.${side}.`,
        'valves valve_diameter stem_diameter guide_material valve_angle valve_cant valve_offset_x valve_offset_y second_offset_x second_offset_y face_recess margin_thickness',
      ),
      `engine.${side}.pocket.`,
    ],
    picture: `pocket-${side}`,
  },
  {
    title: `${title} valve by gauge and dial`,
    fields: list(`engine.${side}.`, 'valve_height valve_height_at piston_drop drops'),
    folded: 'while empty',
  },
  {
    title: `${title} room around the valve train`,
    fields: list(
      `engine.${side}.`,
      'guide_length tip_to_guide spring_pocket pushrod_hole pushrod_hole_below cover_room',
    ),
    folded: 'while empty',
  },
  {
    title: `${title} flow`,
    fields: list(`engine.${side}.`, 'flow_depression flow flow_reverse'),
    picture: `flow-${side}`,
  },
]

export const engine = step({
  name: 'engine',
  title: 'Engine',
  Answer: () => (
    <>
      <EngineAnswer />
      <BenchSays />
    </>
  ),
  groups: [
    {
      title: 'Cylinder',
      fields: list(
        'engine.',
        'bore stroke rod_length pin_offset block_material head_material rod_material piston_assembly_mass rod_mass',
      ),
    },
    {
      title: 'Deck, gasket, chamber',
      fields: list(
        'engine.',
        'deck_clearance gasket_thickness gasket_bore chamber_volume piston_volume',
      ),
      picture: 'deck',
    },
    {
      title: 'By burette',
      fields: list('engine.', 'chamber_fill cylinder_fill piston_down'),
      folded: 'while empty',
    },
    {
      title: 'Combustion',
      fields: list(
        'engine.',
        'combustion fuel octane_ron air_fuel_ratio fuelling spark_retard smoke_air_fuel injection_start injection rail_pressure pressure_ceiling cranking_speed',
      ),
    },
    ...port('intake', 'Intake'),
    ...port('exhaust', 'Exhaust'),
    {
      title: 'Runners and what they breathe from',
      fields: [
        ...list(
          'engine.intake.',
          'runner_length runner_lengths port_length port_volume smallest_section runner_diameter acoustic_end',
        ),
        'engine.induction.',
      ],
    },
    {
      title: 'Order and exhaust',
      fields: [
        ...list(
          'engine.',
          'layout cylinders firing_order cam_drive chain_rows drive_fits distributor_gear pump_arm_width lifter_bore head_stud',
        ),
        ...list(
          'engine.exhaust.',
          'manifold primary_length primary_lengths primary_diameter bend_loss back_pressure',
        ),
        'engine.exhaust.collector.',
      ],
      picture: 'firing',
    },
    {
      title: 'What rubs and what it drives',
      fields: list(
        'engine.',
        'accessories main_bearings main_bearing_diameter main_bearing_length rod_bearing_diameter rod_bearing_length',
      ),
    },
    { title: 'Only in this candidate', fields: ['@.changes.'] },
  ],
})
