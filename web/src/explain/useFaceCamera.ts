import { useEffect, useRef, useState } from 'react';
import { FaceCamera } from './faceCamera';

/** The camera that sees whoever explains: open while it is wanted, as long as nobody else keeps it. */
export function useFaceCamera() {
  const [isWanted, want] = useState(false);
  const [face, setFace] = useState<FaceCamera>();
  const [problem, setProblem] = useState<string>();
  const kept = useRef(false);
  useEffect(() => {
    let gone = false;
    let opened: FaceCamera | undefined;
    if (isWanted)
      FaceCamera.open().then(
        (one) => {
          if (gone) return one.close();
          opened = one;
          setFace(one);
        },
        (error: Error) => {
          if (gone) return;
          setProblem(error.message);
          want(false);
        },
      );
    return () => {
      gone = true;
      setFace(undefined);
      if (!kept.current) opened?.close();
    };
  }, [isWanted]);
  return {
    isWanted,
    face,
    problem,
    want(wanted: boolean) {
      setProblem(undefined);
      want(wanted);
    },
    /** Takes it over: it stays open. */
    keep(): FaceCamera | undefined {
      kept.current = face !== undefined;
      return face;
    },
  };
}
