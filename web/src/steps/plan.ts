import { PlanAnswer } from '../features/plan/PlanAnswer'
import { list } from '../model/groups'
import { step } from './step'

export const plan = step({
  name: 'plan',
  title: 'Plan',
  Answer: PlanAnswer,
  groups: [
    { title: 'The work', fields: ['name', 'use', 'begun_from', 'notes'] },
    {
      title: 'Speeds',
      fields: list('target.', 'band_from band_to peak_power_at shift_at overspeed_by'),
    },
    { title: 'Idle', fields: list('target.', 'idle_at idle_vacuum') },
    { title: 'Boost levels', fields: ['target.boost'] },
    { title: 'Score board', fields: ['target.score'] },
    {
      title: 'What the owner accepts',
      fields: list(
        'target.',
        'budget existing inspection_miles inspection_hours inspection_passes piston_clearance_school keep',
      ),
    },
    { title: 'Class rules', fields: ['target.rules.'] },
    { title: 'Air', fields: ['target.ambient.'] },
  ],
})
