import { render, screen } from '@testing-library/react'
import { expect, test } from 'vitest'
import type { Drive } from '@/api/types'
import { DrivePlan } from './drive-plan'
import { shadeOf } from './shade'

const drive: Drive = { maker: 'M', console: 'C', revision: '1', variant: 'V', family: 'slot', pairing: 'board', has_trimmer: true, has_belt: true, lid_switches: 2, has_electrolytics: false, has_alignment: false, motor_soldered: false, fuse_rating: '1.5 A fast', wavelengths: [405, 650], label_faces: {} }
const part = (id: string, name: string, p: number) => ({ id, part: id, name, p })

test('the plan says its facts in words as well', () => {
  render(<DrivePlan drive={drive} parts={[part('pickup', 'Pickup', 0.58), part('lens', 'Lens', 0.11), part('fuse', 'Fuse', 0.001)]} />)
  expect(screen.getByRole('img')).toHaveAccessibleName('Drive seen from above. Suspicion: Pickup 58%, Lens 11%.')
})

test.each([
  [{ ...drive, fuse_rating: '' }, 'fuse'],
  [{ ...drive, pairing: 'none' }, 'paired board'],
])('a drive without it does not show it', (sheet, word) => {
  const { container } = render(<DrivePlan drive={sheet} parts={[]} />)
  expect(container.textContent).not.toContain(word)
})

test.each([
  [0.001, '✓', true],
  [0.02, '2', false],
  [0.58, '58', false],
])('a suspicion of %d is labelled %s', (p, label, isCleared) => expect(shadeOf(p)).toMatchObject({ label, isCleared }))

test.each([
  ['tray', { has_belt: true }, 'belt', true],
  ['tray', { has_belt: false }, 'belt', false],
  ['lid', { lid_switches: 2 }, 'lid switches', true],
  ['lid', { lid_switches: 1 }, 'lid switches', false],
  ['slot', {}, 'rollers', true],
])('a %s drive with %o shows "%s": %s', (family, more, word, shows) => {
  const { container } = render(<DrivePlan drive={{ ...drive, ...more, family }} parts={[]} />)
  expect(container.textContent?.includes(word)).toBe(shows)
})
