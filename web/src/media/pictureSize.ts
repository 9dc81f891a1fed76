import { t } from '../words';
/** Size of a recording's picture in pixels; undefined where it has none. Throws Error where it cannot be played. */
export async function pictureSize(file: File): Promise<{ width: number; height: number } | undefined> {
  const video = document.createElement('video');
  video.preload = 'metadata';
  const address = URL.createObjectURL(file);
  try {
    await new Promise((resolve, reject) => {
      video.onloadedmetadata = resolve;
      video.onerror = () => reject(new Error(t('material.thisBrowserCannotPlayThis')));
      video.src = address;
    });
    const { videoWidth: width, videoHeight: height } = video;
    return width > 0 && height > 0 ? { width, height } : undefined;
  } finally {
    video.src = '';
    URL.revokeObjectURL(address);
  }
}
