import { useQuery } from '@tanstack/react-query'
import { call } from '../http'
import type { Me } from '../types.gen'

/** Who is signed in, and what may be known about the house. */
export const useMe = () => useQuery({ queryKey: ['me'], queryFn: () => call<Me>('GET', '/me') })
