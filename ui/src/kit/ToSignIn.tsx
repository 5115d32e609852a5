import { Navigate, useLocation } from 'react-router'

/** Leads to the sign-in, which leads back to where one was. */
export function ToSignIn() {
  const { pathname, search } = useLocation()
  return <Navigate to="/sign-in" state={{ from: pathname + search }} replace />
}
