import { useEffect, useState } from 'react';
import { Workspace } from './workspace';
import type { WorkspaceOptions } from './workspace';

/** So long a second press means to take the offer, milliseconds. */
const OFFER_MS = 5000;

/** Offers a page like the last one; asking for the next page again takes the offer. */
function offerPage(workspace: Workspace): () => void {
  let offeredAt = -Infinity;
  return () => {
    const now = performance.now();
    const isAgain = now - offeredAt < OFFER_MS;
    offeredAt = isAgain ? -Infinity : now;
    void import('sonner').then(({ toast }) => {
      if (isAgain) {
        toast.dismiss('last page');
        return workspace.addPageLikeThis();
      }
      return toast('This is the last page.', {
        id: 'last page',
        duration: OFFER_MS,
        action: { label: 'A new page like it', onClick: () => workspace.addPageLikeThis() },
      });
    });
  };
}

/** A workspace that lives as long as the component; undefined until it is made. */
export function useWorkspace(options: WorkspaceOptions): Workspace | undefined {
  const [workspace, setWorkspace] = useState<Workspace>();
  const key = JSON.stringify(options);
  useEffect(() => {
    // Most pages are of PDFs: what draws them comes while the connection is made.
    void import('../canvas/pdfEngine');
    const made = new Workspace(JSON.parse(key) as WorkspaceOptions);
    made.onProblem = (message) =>
      void import('sonner').then(({ toast }) => toast.error(message, { id: message }));
    made.onNotice = (message) => void import('sonner').then(({ toast }) => toast(message, { id: message }));
    made.onLastPage = offerPage(made);
    made.surfaces.onFailed = () =>
      made.onProblem('This page could not be shown. Reload to try again; what is written on it is safe.');
    setWorkspace(made);
    return () => {
      setWorkspace(undefined);
      made.close();
    };
  }, [key]);
  return workspace;
}
