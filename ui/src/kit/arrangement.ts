import { Component, User, Users, type LucideIcon } from 'lucide-react'
import type { Arrangement } from '../wire/types.gen'

/** The sign of who shares a frame. */
export const arrangementSign: Record<Arrangement, LucideIcon> = { class: Users, groups: Component, individual: User }
