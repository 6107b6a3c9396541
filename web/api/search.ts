import { useEffect, useState } from 'react'
import { api, query } from './api.ts'

/** What one may see, by its words. */
const searchApi = api.injectEndpoints({
  endpoints: build => ({
    search: query(build, 'search'),
  }),
})

export const { useSearchQuery } = searchApi

/** What was typed once nobody has typed for a moment. */
export function useSettled(typed: string, after = 120): string {
  const [settled, setSettled] = useState(typed)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(typed), after)
    return () => clearTimeout(timer)
  }, [typed, after])
  return settled
}
