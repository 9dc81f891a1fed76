import type { PagePlaceRequest } from '@doodla/core';

/** Where pages go, as the query of an address says it. */
export function placeQuery({ after, sitting }: PagePlaceRequest): Record<string, string> {
  return { ...(after !== undefined && { after }), ...(sitting !== undefined && { sitting }) };
}
