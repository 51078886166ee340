import { LiftBudget } from '../features/motion/LiftBudget'
import { MatchingMap } from '../features/motion/MatchingMap'
import { Preload } from '../features/motion/Preload'
import { PreloadSchools } from '../features/motion/PreloadSchools'
import { PushrodFigures } from '../features/motion/PushrodFigures'
import { RockerPicture } from '../features/motion/RockerPicture'
import { RunningCharts } from '../features/motion/RunningCharts'
import { SpringAnswer } from '../features/spring/SpringAnswer'
import { step } from './step'

export const lifter = step({
  name: 'lifter',
  title: 'Lifter',
  Answer: () => (
    <>
      <Preload />
      <PreloadSchools />
    </>
  ),
  groups: [
    { title: 'Lifter', fields: ['@.train.lifter.'] },
    {
      title: 'Work that moves the preload',
      fields: ['@.train.preload_work.'],
      folded: 'while empty',
    },
  ],
  drawn: true,
  shelf: ['lifter'],
})

export const rocker = step({
  name: 'rocker',
  title: 'Rocker',
  Answer: () => (
    <>
      <LiftBudget />
      <RockerPicture />
      <RunningCharts />
    </>
  ),
  groups: [
    { title: 'Rocker', fields: ['@.train.rocker.'] },
    { title: 'Readings of lift', fields: ['@.train.readings.'], folded: 'while empty' },
    { title: 'Bridge over two valves', fields: ['@.train.bridge.'], folded: 'while empty' },
  ],
  shelf: ['rocker'],
})

export const pushrod = step({
  name: 'pushrod',
  title: 'Pushrod',
  Answer: () => (
    <>
      <PushrodFigures />
      <MatchingMap />
    </>
  ),
  groups: [
    { title: 'Pushrod', fields: ['@.train.pushrod.'] },
    {
      title: 'Measured pushrods and places',
      fields: ['@.train.matching.'],
      folded: 'while empty',
    },
  ],
  drawn: true,
  shelf: ['pushrod'],
})

export const spring = step({
  name: 'spring',
  title: 'Spring',
  Answer: SpringAnswer,
  groups: [
    { title: 'Spring as fitted', fields: ['@.train.spring.'] },
    {
      title: 'Installed heights of every valve',
      fields: ['@.train.heights.'],
      folded: 'while empty',
    },
    { title: 'Retainer and locks', fields: ['@.train.retainer.'] },
    { title: 'Valve', fields: ['@.train.valve.'] },
    { title: 'Train as measured at speed', fields: ['train_fit.'], folded: 'while empty' },
  ],
  drawn: true,
  shelf: ['spring', 'retainer', 'valve'],
})
