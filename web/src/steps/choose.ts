import { ChooseStep } from '../features/choose/ChooseStep'
import { step } from './step'

export const choose = step({
  name: 'choose',
  title: 'Choose',
  Answer: ChooseStep,
  form: false,
})
