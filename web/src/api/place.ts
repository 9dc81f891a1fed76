/** Where pages go: after one, at the end if none is given; for one class alone if it is given. */
export interface Place {
  after?: string | undefined;
  sitting?: string | undefined;
}

export function placeQuery({ after, sitting }: Place): Record<string, string> {
  return { ...(after !== undefined && { after }), ...(sitting !== undefined && { sitting }) };
}
