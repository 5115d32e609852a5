import { Circle, Flower2, Leaf, Mountain, Sprout, TreePine, type LucideIcon } from 'lucide-react'
import { tintGround } from '../frame/paint/colours'
import type { JudgedLevel, Level, LevelSign } from '../wire/types.gen'

/** The signs of levels, from little to much. */
export const levelIcons: Record<LevelSign, LucideIcon> = {
  seed: Circle,
  sprout: Sprout,
  leaf: Leaf,
  flower: Flower2,
  tree: TreePine,
  peak: Mountain,
}

/** A level by its word, sign and colour. */
export function LevelName({ level }: { level: Level }) {
  const Icon = levelIcons[level.sign]
  return (
    <span className={`inline-flex items-center gap-1.5 rounded-md px-2 py-0.5 font-semibold ${tintGround[level.tint]}`}>
      <Icon size={16} aria-hidden="true" className="shrink-0" />
      <bdi>{level.name}</bdi>
    </span>
  )
}

/** A level that was given, on the scale as it was then. */
export const LevelBadge = ({ level }: { level: JudgedLevel }) => <LevelName level={level.scale[level.at]!} />
