import { EventsStep } from '../features/events/EventsStep'
import { LobePicture } from '../features/lobe/LobePicture'
import { LobeContact } from '../features/motion/LobeContact'
import { LobeTools } from '../features/motion/LobeTools'
import type { Group } from '../model/groups'
import { list } from '../model/groups'
import { step } from './step'

export const events = step({
  name: 'events',
  title: 'Events',
  Answer: EventsStep,
  groups: [
    {
      title: 'As the document has it, with sources',
      fields: [...list('@.cam.', 'lobe_separation intake_centreline'), '@.cam.events_050.'],
      folded: 'until asked',
    },
  ],
  tall: true,
  drawn: true,
  shelf: ['cam'],
})

const lobeOf = (side: 'intake' | 'exhaust', title: string): Group[] => [
  {
    title: `${title} lobe`,
    fields: list(`@.cam.${side}.`, 'part lobe_lift lash_ramp checks'),
  },
  {
    title: `${title} lobe: asymmetric flanks, or measured`,
    fields: list(`@.cam.${side}.`, 'opening. closing. profile'),
    folded: 'while empty',
  },
]

export const lobe = step({
  name: 'lobe',
  title: 'Lobe',
  Answer: () => (
    <>
      <LobePicture />
      <LobeTools />
      <LobeContact />
    </>
  ),
  groups: [
    ...lobeOf('intake', 'Intake'),
    ...lobeOf('exhaust', 'Exhaust'),
    {
      title: 'Core',
      fields: list(
        '@.cam.',
        'part price base_circle_diameter core_material ground_for wheel_radius snout gear bearing_diameter journal_diameter eccentric_width base_circle_before base_runout case_depth',
      ),
    },
  ],
  shelf: ['cam', 'lobe'],
})
